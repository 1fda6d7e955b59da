import { describe, expect, it } from 'vitest';
import {
  atBone,
  atEffect,
  collectionOf,
  type Effect,
  newEffect,
  newForce,
  newLayer,
  newThing,
  setNumber,
} from '../document/index.ts';
import { forceForSource, placeForForce, shareSize } from './forcePlace.ts';

function effectOf(shape: (effect: Effect) => void): Effect {
  const effect = newEffect('Test', 1);
  effect.layers = collectionOf([['motes', newLayer('Motes', 5)]]);
  shape(effect);
  return effect;
}
const none = () => [];

describe('where a new force stands', () => {
  it('is where another does, turned as that is', () => {
    const keyed = {
      ...atEffect([1, 2, 3], [30, 0, 10]),
      keys: collectionOf([['k', { at: 1, ease: 'smooth' as const, offset: [2, 2, 2], turn: [5, 0, 0] }]]),
    } as ReturnType<typeof atEffect>;
    const effect = effectOf((own) => {
      own.layers.byId['motes']!.forces = collectionOf([['v', newForce('vortex', keyed)]]);
    });
    const place = placeForForce(effect, 'motes', none);
    expect(place).toMatchObject({ kind: 'effect', offset: [1, 2, 3], turn: [30, 0, 10] });
    expect(place.keys.byId['k']).toMatchObject({ offset: [2, 2, 2], turn: [5, 0, 0] });
    // The other stays as it is.
    expect(effect.layers.byId['motes']!.forces.byId['v']!.place.turn).toEqual([30, 0, 10]);
  });

  it('is where its source does, turned as that is; without a place over the figure, or in the middle', () => {
    const onBone = effectOf((own) => {
      own.layers.byId['motes']!.source = { kind: 'ring', place: { ...atBone('sedge', 'head'), turn: [16, 0, -12] } };
    });
    expect(placeForForce(onBone, 'motes', none)).toMatchObject({ kind: 'bone', bone: 'head', turn: [16, 0, -12] });
    const onMesh = (own: Effect) => {
      own.layers.byId['motes']!.source = { kind: 'mesh', thing: 'sedge', bones: [] };
    };
    const figure = effectOf((own) => {
      onMesh(own);
      own.stage.things = collectionOf([['sedge', newThing('Sedge', 'a'.repeat(64))]]);
    });
    expect(placeForForce(figure, 'motes', () => ['hip', 'chest'])).toMatchObject({ kind: 'bone', bone: 'chest' });
    expect(placeForForce(effectOf(onMesh), 'motes', none)).toEqual(atEffect([0, 1.5, 0]));
  });
});

describe('a new orbit', () => {
  const distanceOf = (shape: (effect: Effect) => void) => {
    const force = forceForSource(effectOf(shape), 'motes', 'orbit', none);
    return (force.settings as { distance: { base: unknown } }).distance.base;
  };
  it('goes round as far out as its source bears, by the same measure where that is measured', () => {
    const ring = (own: Effect) => {
      const layer = own.layers.byId['motes']!;
      layer.source = { kind: 'ring', place: atEffect() };
      return layer;
    };
    expect(distanceOf((own) => setNumber(ring(own), 'source.radius', 0.6))).toEqual({ kind: 'fixed', value: 0.6 });
    const measured = { kind: 'measure', measure: 'm' } as const;
    expect(distanceOf((own) => (ring(own).settings['source.radius'].base = measured))).toEqual(measured);
    const point = { kind: 'point', place: atEffect() } as const;
    expect(distanceOf((own) => (own.layers.byId['motes']!.source = point))).toEqual({ kind: 'fixed', value: 1 });
  });

  it('shares that size with its source as a measure, once', () => {
    const effect = effectOf((own) => {
      const layer = own.layers.byId['motes']!;
      layer.source = { kind: 'ring', place: atEffect() };
      setNumber(layer, 'source.radius', 0.6);
    });
    const layer = effect.layers.byId['motes']!;
    layer.forces = collectionOf([['o', forceForSource(effect, 'motes', 'orbit', none)]]);
    expect(shareSize(effect, 'motes', 'o', 'm')).toBe('Motes radius');
    expect(effect.measures.byId['m']).toMatchObject({ quantity: 'length', value: 0.6 });
    const measured = { kind: 'measure', measure: 'm' };
    expect(layer.settings['source.radius'].base).toEqual(measured);
    expect(layer.forces.byId['o']!.settings).toMatchObject({ distance: { base: measured } });
    expect(shareSize(effect, 'motes', 'o', 'n')).toBeNull();
  });
});
