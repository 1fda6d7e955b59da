import { describe, expect, it } from 'vitest';
import { newForce } from '../../../document/index.ts';
import { under, vectorsOf, withNumber } from '../../../testing/storms.ts';

describe('the speed limit', () => {
  it('lets nothing go faster', () => {
    const world = under([newForce('gravity'), withNumber(newForce('limit'), 'fastest', 3)]);
    world.advance(120);
    for (const v of vectorsOf(world, 'velocity')) expect(Math.hypot(...v)).toBeCloseTo(3, 4);
  });
});
