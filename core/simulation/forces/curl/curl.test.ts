import { describe, expect, it } from 'vitest';
import { newForce } from '../../../document/index.ts';
import { under, vectorsOf, withNumber } from '../../../testing/storms.ts';

describe('curl noise', () => {
  it('stirs particles apart from one another and changes with time only if told to', () => {
    const world = under([newForce('curl')]);
    world.advance(30);
    const speeds = vectorsOf(world, 'velocity');
    expect(new Set(speeds.map(([x]) => Math.sign(x))).size).toBe(2);
    const still = withNumber(newForce('curl'), 'change', 0);
    const calls = [10, 50].map((step) => {
      const other = under([withNumber(still, 'strength', 1e-3)]);
      other.advance(step);
      const before = vectorsOf(other, 'velocity')[0]!;
      other.advance(step + 1);
      return vectorsOf(other, 'velocity')[0]!.map((v, axis) => v - before[axis]!);
    });
    calls[0]!.forEach((a, axis) => expect(a).toBeCloseTo(calls[1]![axis]!, 6));
  });
});
