import { describe, expect, it } from 'vitest';
import { atEffect, newForce } from '../../../document/index.ts';
import { under, vectorsOf, withNumber } from '../../../testing/storms.ts';

describe('the vortex', () => {
  it('turns particles round its axis, one way, and the other when negative', () => {
    for (const strength of [2, -2]) {
      const world = under([withNumber(newForce('vortex', atEffect([0, 1, 0])), 'strength', strength)]);
      world.advance(10);
      const places = vectorsOf(world, 'position');
      vectorsOf(world, 'velocity').forEach(([x, , z], i) => {
        const [px, , pz] = places[i]!;
        expect(Math.sign(pz * x - px * z)).toBe(Math.sign(strength));
      });
    }
  });

  it('lifts along its axis', () => {
    const still = withNumber(newForce('vortex', atEffect([0, 1, 0])), 'strength', 0);
    const world = under([withNumber(still, 'lift', 1.5)]);
    world.advance(60);
    for (const v of vectorsOf(world, 'velocity')) expect(v[1]).toBeCloseTo(1.5, 2);
  });
});
