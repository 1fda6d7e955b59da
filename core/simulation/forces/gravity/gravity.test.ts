import { describe, expect, it } from 'vitest';
import { newForce } from '../../../document/index.ts';
import { under, vectorsOf } from '../../../testing/storms.ts';

describe('gravity', () => {
  it('drops particles by half the acceleration times the time squared', () => {
    const world = under([newForce('gravity')]);
    world.advance(1);
    const before = vectorsOf(world, 'position');
    const speed = vectorsOf(world, 'velocity')[0]![1];
    world.advance(61);
    vectorsOf(world, 'position').forEach((p, i) => expect(p[1] - before[i]![1]).toBeCloseTo(speed - 9.81 / 2, 3));
  });
});
