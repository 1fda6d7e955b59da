import { describe, expect, it } from 'vitest';
import {
  collectionOf,
  curveShaper,
  inWorld,
  newDrawn,
  newForce,
  newLayer,
  newSurface,
  removeLayer,
  setNumber,
  type Effect,
  type Layer,
  type Vector,
} from '../../document/index.ts';
import { effectOf } from '../../testing/effects.ts';
import { closedBox, withTallerShape } from '../../testing/rigs.ts';
import type { Rig } from '../../geometry/index.ts';
import { reachBetween, whyNotMet } from '../index.ts';
import { playAlone } from '../world/world.ts';

const BOX = 'b'.repeat(64);
/** A box of a metre that is twice as tall above its middle in its other shape. */
const RIGS = new Map<string, Rig>([[BOX, withTallerShape(closedBox(), 2)]]);

/** Something falls on a box that stands with its middle at a height of 1 m. */
function falling(shape: (block: Layer, effect: Effect) => void = () => undefined, act = 'stick'): Effect {
  return effectOf((layer, effect) => {
    layer.source = { kind: 'point', place: inWorld([0.1, 5, 0.05]) };
    setNumber(layer, 'births.rate', 0);
    setNumber(layer, 'births.standing', 1);
    setNumber(layer, 'motion.speed', 0);
    layer.forces = collectionOf([['gravity', newForce('gravity', inWorld())]]);
    const block = newLayer('Block', 77);
    block.source = { kind: 'point', place: inWorld([0, 1, 0]) };
    block.drawn = { ...newDrawn('mesh'), meshes: collectionOf([['box', { asset: BOX, name: 'Box', chance: 1 }]]) };
    setNumber(block, 'births.rate', 0);
    setNumber(block, 'births.standing', 1);
    setNumber(block, 'motion.speed', 0);
    setNumber(block, 'life.size', 1);
    block.settings['appearance.facing'].base = { kind: 'fixed', value: 'own frame' };
    effect.layers = collectionOf([
      ['motes', layer],
      ['block', block],
    ]);
    const surface = newSurface('layer', { layer: 'block' });
    surface.settings.act.base = { kind: 'fixed', value: act };
    effect.surfaces = collectionOf([['block', surface]]);
    effect.stretches = { opening: 4, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
    shape(block, effect);
  });
}
function heightAt(effect: Effect, step: number): number {
  const world = playAlone(effect, RIGS);
  world.advance(step);
  return world.population('motes')!.position[1][0]!;
}
const other = (block: Layer, value: number) => {
  if (block.drawn.kind === 'mesh') block.drawn.settings.otherShape.base = { kind: 'fixed', value };
};

describe('the mesh a layer is drawn as', () => {
  it.each<[string, number, (block: Layer, effect: Effect) => void]>([
    ['as large as it is drawn', 1.5, () => undefined],
    ['by its size', 2, (block) => setNumber(block, 'life.size', 2)],
    ['by its height', 3, (block) => setNumber(block, 'life.height', 400)],
    ['half way to its other shape', 1.75, (block) => other(block, 50)],
    ['in its other shape', 2, (block) => other(block, 100)],
    [
      'tilted as it is drawn',
      2.5,
      (block) => {
        setNumber(block, 'life.width', 300);
        block.settings['life.tilt'].base = { kind: 'fixed', value: [0, 0, 90] as Vector };
      },
    ],
    ['where it stands', 1.9, (block) => (block.source = { kind: 'point', place: inWorld([0.2, 1.4, -0.1]) })],
  ])('is met %s', (_, height, shape) => {
    expect(heightAt(falling(shape), 150)).toBeCloseTo(height, 2);
  });

  it('lifts what lies on it as it changes shape over the effect’s time', () => {
    const rising = (block: Layer) => {
      other(block, 100);
      if (block.drawn.kind === 'mesh')
        block.drawn.settings.otherShape.shapers = collectionOf([
          [
            'rises',
            {
              ...curveShaper([
                [0, 0],
                [0.5, 0],
                [1, 1],
              ]),
              reads: { kind: 'effectTime' } as const,
            },
          ],
        ]);
    };
    const effect = falling(rising);
    expect(heightAt(effect, 118)).toBeCloseTo(1.5, 2);
    expect(heightAt(effect, 180)).toBeGreaterThan(1.65);
    expect(heightAt(effect, 239)).toBeCloseTo(2, 1);
  });

  it('is not met by itself, nor where it can not be known', () => {
    const { layers } = falling();
    const block = () => structuredClone(layers.byId['block']!);
    expect(whyNotMet(block())).toBeNull();
    const why = (change: (block: Layer) => void) => {
      const changed = block();
      change(changed);
      return whyNotMet(changed);
    };
    expect(why((layer) => (layer.drawn = { kind: 'sprite' }))).toMatch(/not drawn as a mesh/);
    expect(why((layer) => setNumber(layer, 'births.standing', 0))).toMatch(/as long as the effect/);
    expect(why((layer) => (layer.settings['appearance.facing'].base.value = 'camera'))).toMatch(
      /turns with the view/,
    );
    expect(why((layer) => setNumber(layer, 'life.turning', [1, 9]))).toMatch(/unevenly/);
    const alone = falling();
    const world = playAlone(alone, RIGS);
    world.advance(120);
    const { position } = world.population('block')!;
    expect(position[1][0]).toBe(1);
    const without = falling((made) => (made.drawn = { kind: 'sprite' }));
    expect(heightAt(without, 150)).toBeLessThan(0);
  });

  it('is not met by itself where it is named among those who meet it', () => {
    const fallen = (layers: string[]) => {
      const effect = falling((block) => {
        block.forces = collectionOf([['gravity', newForce('gravity', inWorld())]]);
      });
      const surface = effect.surfaces.byId['block']!;
      surface.layers = layers;
      surface.settings.side.base = { kind: 'fixed', value: 'both' };
      const world = playAlone(effect, RIGS);
      world.advance(60);
      const [block, motes] = ['block', 'motes'].map((id) => world.population(id)!.position[1][0]!);
      return { block: block!, motes: motes! };
    };
    const all = fallen([]);
    expect(all.block).toBeLessThan(-2);
    for (const layers of [['motes', 'block'], ['block']]) expect(fallen(layers).block).toBe(all.block);
    expect(fallen(['motes', 'block']).motes).toBe(all.motes);
    expect(fallen(['block']).motes).toBeLessThan(all.motes);
  });

  it('reaches those who meet it when it is changed, and goes with its layer', () => {
    const before = falling();
    const after = structuredClone(before);
    setNumber(after.layers.byId['block']!, 'life.height', 50);
    const reach = reachBetween(before, after);
    expect(reach.kind).toBe('state');
    expect((reach.layers as ReadonlySet<string>).has('motes')).toBe(true);
    removeLayer(after, 'block');
    expect(after.surfaces.order).toEqual([]);
  });
});
