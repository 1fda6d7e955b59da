import { describe, expect, it } from 'vitest';
import { atEffect, newForce, setNumber } from '../../../document/index.ts';
import { under, vectorsOf, withNumber } from '../../../testing/storms.ts';

describe('the spreading push', () => {
  const push = () => withNumber(withNumber(newForce('push', atEffect([0, 1, 0])), 'speed', 5), 'start', 0.5);
  it('reaches particles when its shell does, and pushes them outward', () => {
    const world = under([withNumber(push(), 'width', 0.2)], (effect) =>
      setNumber(effect.layers.byId['motes']!, 'source.radius', 2),
    );
    // The shell leaves at 0.5 s and needs 0.36 s to come within 0.2 m of the sphere.
    world.advance(50);
    for (const v of vectorsOf(world, 'velocity')) expect(Math.hypot(...v)).toBe(0);
    world.advance(70);
    const places = vectorsOf(world, 'position');
    vectorsOf(world, 'velocity').forEach((v, i) => {
      const out = places[i]!.map((x, axis) => x - [0, 1, 0][axis]!);
      expect(v.reduce((sum, x, axis) => sum + x * out[axis]!, 0)).toBeGreaterThan(0.5);
    });
    const speeds = vectorsOf(world, 'velocity').map((v) => Math.hypot(...v));
    world.advance(120);
    vectorsOf(world, 'velocity').forEach((v, i) => expect(Math.hypot(...v)).toBeCloseTo(speeds[i]!, 5));
  });
});
