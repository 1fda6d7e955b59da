import {
  atEffect,
  collectionOf,
  newEffect,
  newForce,
  newFront,
  newLayer,
  newSurface,
  setNumber,
  structuredCopy,
  type Effect,
  type Layer,
  type PartAddress,
} from '@jinx/core/document';
import { describe, expect, it } from 'vitest';
import { knobsOf } from './knobs';

function made(shape: (layer: Layer, effect: Effect) => void): Effect {
  const effect = newEffect('Test', 1);
  const layer = newLayer('Motes', 5);
  effect.layers = collectionOf([['motes', layer]]);
  shape(layer, effect);
  return effect;
}
const SOURCE: PartAddress = { kind: 'source', layer: 'motes' };

/** Pulls each knob of a place to 3 and says what each then is. */
function pulled(effect: Effect, place: PartAddress): Record<string, number> {
  return Object.fromEntries(
    knobsOf(effect, 'motes', place).map(({ id, write }) => {
      const draft = structuredCopy(effect);
      write(draft, 3);
      return [id, knobsOf(draft, 'motes', place).find((knob) => knob.id === id)!.value];
    }),
  );
}
const source = (kind: 'ring' | 'line' | 'box' | 'cone' | 'cylinder' | 'sphere' | 'disc') =>
  made((layer) => (layer.source = { kind, place: atEffect() }));

describe('sizes pulled on the stage', () => {
  it('are those that the shape has, and each is what it was pulled to', () => {
    expect(pulled(source('ring'), SOURCE)).toEqual({ 'source.radius': 3, 'source.thickness': 3, 'source.arc': 3 });
    expect(pulled(source('line'), SOURCE)).toEqual({ 'source.length': 3 });
    expect(pulled(source('cone'), SOURCE)).toMatchObject({
      'source.radius': 3,
      'source.length': 3,
      'source.angle': 3,
    });
    expect(pulled(source('box'), SOURCE)).toEqual({ 'source.size/0': 3, 'source.size/1': 3, 'source.size/2': 3 });
  });

  it('stand where the shape is drawn: at a line’s end, half its length from the middle', () => {
    const [knob] = knobsOf(source('line'), 'motes', SOURCE);
    expect(knob!.at).toEqual([0, 0.5, 0]);
  });

  it('are thickness, arc and the lean of a cone too, each where its shape has it', () => {
    const ring = source('ring');
    setNumber(ring.layers.byId['motes']!, 'source.radius', 2);
    setNumber(ring.layers.byId['motes']!, 'source.thickness', 0.25);
    setNumber(ring.layers.byId['motes']!, 'source.arc', 90);
    const knobs = knobsOf(ring, 'motes', SOURCE);
    const of = (id: string) => knobs.find((knob) => knob.id === `source.${id}`)!;
    expect(of('thickness').at).toEqual([0, 0.25, 2]);
    expect(of('arc').at.map((metres) => Number(metres.toFixed(6)))).toEqual([0, 0, 1.6]);
    // Turned on by the right hand about its axis, it goes on along the ring.
    expect([of('arc').way, of('arc').valueAfter(45)]).toEqual([[0, -1, 0], 135]);
    const cone = source('cone');
    setNumber(cone.layers.byId['motes']!, 'source.radius', 0.5);
    setNumber(cone.layers.byId['motes']!, 'source.length', 1);
    setNumber(cone.layers.byId['motes']!, 'source.angle', 0);
    const lean = knobsOf(cone, 'motes', SOURCE).find(({ id }) => id === 'source.angle')!;
    expect(lean.at).toEqual([0.5, 1, 0]);
    expect(lean.valueAfter(1)).toBeCloseTo(45, 6);
  });

  it('are a force’s reach and distance, a surface’s and a front’s size', () => {
    const effect = made((layer, whole) => {
      layer.forces = collectionOf([['o', newForce('orbit')]]);
      whole.surfaces = collectionOf([['s', newSurface('box', { place: atEffect() })]]);
      whole.fronts = collectionOf([['f', newFront('Border', 'plane', atEffect())]]);
      layer.front = 'f';
    });
    expect(pulled(effect, { kind: 'force', layer: 'motes', id: 'o' })).toEqual({ reach: 3, distance: 3 });
    expect(pulled(effect, { kind: 'surface', id: 's' })).toEqual({ wide: 3, tall: 3, deep: 3 });
    expect(pulled(effect, { kind: 'front', id: 'f' })).toEqual({ border: 3 });
  });

  it('keep a spread as wide beside its size as it was', () => {
    const effect = made((layer) => {
      const orbit = newForce('orbit');
      if (orbit.kind === 'orbit') orbit.settings.distance.base = { kind: 'spread', low: 1, high: 2 };
      layer.forces = collectionOf([['o', orbit]]);
    });
    const draft = structuredCopy(effect);
    knobsOf(effect, 'motes', { kind: 'force', layer: 'motes', id: 'o' })
      .find(({ id }) => id === 'distance')!
      .write(draft, 3);
    const force = draft.layers.byId['motes']!.forces.byId['o']!;
    expect(force.kind === 'orbit' && force.settings.distance.base).toEqual({ kind: 'spread', low: 1.5, high: 3 });
  });

  it('go no further than the setting may', () => {
    const effect = source('ring');
    setNumber(effect.layers.byId['motes']!, 'source.radius', 1);
    const draft = structuredCopy(effect);
    knobsOf(effect, 'motes', SOURCE)[0]!.write(draft, -4);
    expect(knobsOf(draft, 'motes', SOURCE)[0]!.value).toBe(0);
  });
});
