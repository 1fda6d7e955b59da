import { describe, expect, it } from 'vitest';
import { burst, collectionOf, newForce, setNumber } from '../../../document/index.ts';
import { effectOf } from '../../../testing/effects.ts';
import { under, vectorsOf, withNumber } from '../../../testing/storms.ts';
import { playAlone } from '../../world/world.ts';

describe('drag', () => {
  it.each([30, 60, 240])('leaves exactly e to the minus kt of the speed, at %i steps a second', (rate) => {
    const effect = effectOf((layer) => {
      setNumber(layer, 'births.rate', 0);
      setNumber(layer, 'births.life', 60);
      setNumber(layer, 'motion.speed', 10);
      layer.bursts = collectionOf([['all', burst('opening', 0, 20)]]);
      layer.forces = collectionOf([['drag', withNumber(newForce('drag'), 'strength', 2.5)]]);
    });
    const world = playAlone(effect, new Map(), {}, { rate });
    world.advance(rate);
    for (const v of vectorsOf(world, 'velocity')) expect(Math.hypot(...v)).toBeCloseTo(10 * Math.exp(-2.5), 4);
  });
});

describe('air drag', () => {
  it.each([30, 60, 240])('leaves 1 / (1 + c v t) of the speed, exactly, at %i steps a second', (rate) => {
    const air = withNumber(withNumber(newForce('drag'), 'strength', 0), 'air', 0.3);
    const world = under([air], (effect) => setNumber(effect.layers.byId['motes']!, 'motion.speed', 10), { rate });
    world.advance(rate);
    for (const v of vectorsOf(world, 'velocity')) expect(Math.hypot(...v)).toBeCloseTo(10 / (1 + 0.3 * 10), 2);
  });
});
