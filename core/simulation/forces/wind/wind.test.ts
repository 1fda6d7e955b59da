import { describe, expect, it } from 'vitest';
import { newForce } from '../../../document/index.ts';
import { distanceTo, under, vectorsOf, withNumber, withValue } from '../../../testing/storms.ts';

describe('wind', () => {
  it('takes particles along, as fast as itself in the end', () => {
    const wind = withValue(withNumber(withNumber(newForce('wind'), 'strength', 2), 'speed', 3), 'axis', [0, 0, 1]);
    const world = under([wind]);
    world.advance(30);
    for (const v of vectorsOf(world, 'velocity')) expect(v[2]).toBeCloseTo(3 * (1 - Math.exp(-2 * 0.5)), 1);
    world.advance(600);
    for (const v of vectorsOf(world, 'velocity')) expect(distanceTo([0, 0, 3])(v)).toBeLessThan(1e-3);
  });
});
