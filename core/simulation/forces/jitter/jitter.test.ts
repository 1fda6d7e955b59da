import { describe, expect, it } from 'vitest';
import { newForce } from '../../../document/index.ts';
import { under, vectorsOf } from '../../../testing/storms.ts';

describe('jitter', () => {
  it('shakes each its own way, and not always the same way', () => {
    const world = under([newForce('jitter')]);
    world.advance(10);
    const early = vectorsOf(world, 'velocity');
    expect(new Set(early.map(([x]) => x)).size).toBe(50);
    expect(new Set(early.map(([x]) => Math.sign(x))).size).toBe(2);
    world.advance(120);
    const turned = vectorsOf(world, 'velocity').filter(([x], i) => Math.sign(x) !== Math.sign(early[i]![0]));
    expect(turned.length).toBeGreaterThan(5);
  });
});
