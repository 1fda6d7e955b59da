import { describe, expect, it } from 'vitest';
import { atEffect, newForce, setNumber } from '../../../document/index.ts';
import { kernelBytes } from '../../../testing/kernelBytes.ts';
import { distanceTo, under, vectorsOf, withNumber, withValue } from '../../../testing/storms.ts';
import { Instance } from '../../index.ts';

describe('orbit', () => {
  const distances = (world: Instance) => vectorsOf(world, 'position').map(([x, , z]) => Math.hypot(x, z));
  it('holds its distance from an axis within a thousandth for a minute', () => {
    for (const speed of [2.5, -4]) {
      const orbit = withNumber(withNumber(newForce('orbit'), 'distance', 1.4), 'speed', speed);
      const world = under([orbit], undefined, { kernels: kernelBytes() });
      for (let second = 1; second <= 60; second++) {
        world.advance(second * 60);
        for (const d of distances(world)) expect(Math.abs(d / 1.4 - 1)).toBeLessThan(0.001);
      }
      vectorsOf(world, 'velocity').forEach((v) => expect(Math.hypot(...v)).toBeCloseTo(Math.abs(speed), 2));
    }
  });

  it('goes round one way, and the other when the speed is negative', () => {
    for (const speed of [2, -2]) {
      const world = under([withNumber(newForce('orbit'), 'speed', speed)]);
      world.advance(60);
      const places = vectorsOf(world, 'position');
      vectorsOf(world, 'velocity').forEach(([x, , z], i) =>
        expect(Math.sign(places[i]![2] * x - places[i]![0] * z)).toBe(Math.sign(speed)),
      );
    }
  });

  it('about a point keeps the speed each came with, for a minute', () => {
    const about = withValue(withNumber(newForce('orbit', atEffect([0, 1, 0])), 'distance', 2), 'about', 'point');
    const world = under([withNumber(about, 'speed', 0)], (effect) => {
      effect.layers.byId['motes']!.settings['motion.launch'].base = { kind: 'fixed', value: 'axis' };
      setNumber(effect.layers.byId['motes']!, 'motion.speed', 3);
    });
    world.advance(1);
    const before = vectorsOf(world, 'velocity').map((v) => Math.hypot(...v));
    world.advance(3600);
    vectorsOf(world, 'velocity').forEach((v, i) => expect(Math.hypot(...v)).toBeCloseTo(before[i]!, 1));
    for (const p of vectorsOf(world, 'position')) expect(distanceTo([0, 1, 0])(p)).toBeCloseTo(2, 3);
  });

  it('that takes its time lets particles come from where they were', () => {
    const world = under([withNumber(withNumber(newForce('orbit'), 'distance', 3), 'halves', 0.225)]);
    world.advance(3);
    const early = distances(world);
    world.advance(240);
    distances(world).forEach((d, i) => {
      expect(early[i]!).toBeLessThan(1.2);
      expect(Math.abs(d - 3)).toBeLessThan(0.2);
    });
  });
});
