import { describe, expect, it } from 'vitest';
import { collectionOf, newForce } from '../../../document/index.ts';
import { under, vectorsOf, withNumber } from '../../../testing/storms.ts';

describe('a velocity', () => {
  it('moves particles without momentum', () => {
    const world = under([withNumber(withNumber(newForce('velocity'), 'x', 2), 'y', 0)]);
    world.advance(1);
    const before = vectorsOf(world, 'position');
    world.advance(61);
    vectorsOf(world, 'position').forEach((p, i) => expect(p[0] - before[i]![0]).toBeCloseTo(2, 4));
    for (const v of vectorsOf(world, 'velocity')) expect(Math.hypot(...v)).toBe(0);
  });

  it('turns with the group the layer stands in', () => {
    const world = under([withNumber(withNumber(newForce('velocity'), 'x', 2), 'y', 0)], (effect) => {
      effect.groups = collectionOf([
        [
          'turned',
          { name: 'Turned', parent: null, translation: [0, 0, 0], rotation: [0, 90, 0], scale: 1, linked: null },
        ],
      ]);
      effect.layers.byId['motes']!.parent = 'turned';
    });
    world.advance(1);
    const before = vectorsOf(world, 'position');
    world.advance(61);
    vectorsOf(world, 'position').forEach((p, i) => {
      expect(p[2] - before[i]![2]).toBeCloseTo(-2, 3);
      expect(p[0] - before[i]![0]).toBeCloseTo(0, 3);
    });
  });
});
