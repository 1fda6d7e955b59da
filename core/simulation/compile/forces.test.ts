import { describe, expect, it } from 'vitest';
import {
  atEffect,
  collectionOf,
  curveShaper,
  forceOfKind,
  newForce,
  setNumber,
  type Force,
  type NumberSetting,
} from '../../document/index.ts';
import { distanceTo, under, vectorsOf, withNumber, withValue } from '../../testing/storms.ts';
import { Instance } from '../index.ts';

describe('where and on whom a force acts', () => {
  const moved = (world: Instance) => vectorsOf(world, 'velocity').map((v) => Math.hypot(...v) > 0);
  it('a share of the particles, always the same ones, and a larger share holds the smaller', () => {
    const of = (share: number) => {
      const world = under([withNumber(newForce('gravity'), 'share', share)]);
      world.advance(20);
      return moved(world);
    };
    const [third, half] = [of(34), of(60)];
    expect(third.filter(Boolean).length).toBeGreaterThan(8);
    expect(third.filter(Boolean).length).toBeLessThan(half.filter(Boolean).length);
    third.forEach((is, i) => expect(!is || half[i]).toBe(true));
    expect(of(0).some(Boolean)).toBe(false);
  });

  it.each(['soft', 'even slope', 'none', 'by the square'])('within a reach, by a falloff that is %s', (falloff) => {
    const place = atEffect([0.5, 1, 0]);
    const world = under([withValue(withNumber(newForce('gravity', place), 'reach', 0.6), 'falloff', falloff)]);
    world.advance(1);
    const distances = vectorsOf(world, 'position').map(distanceTo([0.5, 1, 0]));
    const speeds = vectorsOf(world, 'velocity').map((v) => -v[1] / (9.81 / 60));
    const expected = (r: number) =>
      falloff === 'soft'
        ? (1 - r * r) ** 2
        : falloff === 'even slope'
          ? 1 - r
          : falloff === 'none'
            ? 1
            : 1 / (1 + 15 * r * r);
    let inside = 0;
    distances.forEach((d, i) => {
      expect(speeds[i]).toBeCloseTo(d < 0.6 ? expected(d / 0.6) : 0, 1);
      inside += d < 0.6 ? 1 : 0;
    });
    expect(inside).toBeGreaterThan(5);
    expect(inside).toBeLessThan(45);
  });

  it('only where it would push at least as hard as its threshold', () => {
    const place = atEffect([1, 1, 0]);
    const drawn = () => withNumber(newForce('attraction', place), 'reach', 2);
    const all = under([drawn()]);
    const some = under([withNumber(drawn(), 'threshold', 1.6)]);
    for (const world of [all, some]) world.advance(1);
    const speeds = vectorsOf(some, 'velocity').map((v) => Math.hypot(...v));
    let stopped = 0;
    vectorsOf(all, 'velocity').forEach((v, i) => {
      const speed = Math.hypot(...v);
      if (speed * 60 > 1.61) expect(speeds[i]).toBeCloseTo(speed, 6);
      else if (speed * 60 < 1.59) {
        expect(speeds[i]).toBe(0);
        stopped++;
      }
    });
    expect(stopped).toBeGreaterThan(5);
    expect(stopped).toBeLessThan(45);
  });

  it('on some layers of the effect, or on all', () => {
    const both = (layers: string[]) => {
      const world = under([], (effect) => {
        const other = structuredClone(effect.layers.byId['motes']!);
        other.salt = 99;
        effect.layers = collectionOf([
          ['motes', effect.layers.byId['motes']!],
          ['other', other],
        ]);
        effect.forces = collectionOf([['fall', { force: newForce('gravity'), layers }]]);
      });
      world.advance(10);
      return ['motes', 'other'].map((id) => vectorsOf(world, 'velocity', id).every((v) => v[1] < -1));
    };
    expect(both([])).toEqual([true, true]);
    expect(both(['other'])).toEqual([false, true]);
  });

  it('by strengths that follow a table over age or over speed as the curve says', () => {
    const life = 2;
    const byAge = curveShaper([
      [0, 0],
      [0.3, 2],
      [1, 0.5],
    ]);
    const bySpeed = { ...byAge, reads: { kind: 'speed' as const } };
    for (const shaper of [byAge, bySpeed]) {
      const world = under([withNumber(newForce('gravity'), 'strength', 4, shaper)], (effect) =>
        setNumber(effect.layers.byId['motes']!, 'births.life', life),
      );
      const still = under([withNumber(newForce('gravity'), 'strength', 4, { ...shaper, muted: true })], (effect) =>
        setNumber(effect.layers.byId['motes']!, 'births.life', life),
      );
      for (const each of [world, still]) each.advance(60);
      const [shaped, plain] = [world, still].map((each) => vectorsOf(each, 'velocity')[0]![1]) as [number, number];
      expect(plain).toBeCloseTo(-4, 1);
      expect(Math.abs(shaped - plain)).toBeGreaterThan(0.3);
    }
  });
});

describe('a force changed to another kind', () => {
  it('keeps its place, its reach and whether it is muted', () => {
    const old = withNumber(withNumber(newForce('attraction', atEffect([1, 2, 3])), 'reach', 2.5), 'strength', 7);
    old.muted = true;
    const made = forceOfKind(old, 'vortex');
    expect(made.kind).toBe('vortex');
    expect(made.place).toEqual(old.place);
    expect(made.muted).toBe(true);
    const settings = (force: Force) => force.settings as unknown as Record<string, NumberSetting>;
    expect(settings(made)['reach']).toEqual(settings(old)['reach']);
    expect(settings(made)['strength']).toEqual(settings(old)['strength']);
    expect(settings(forceOfKind(old, 'drag'))['strength']!.base).toEqual({ kind: 'fixed', value: 1 });
  });
});

describe('forces together', () => {
  it('add up: gravity and a lift against it leave a particle where it is', () => {
    const lift = withNumber(newForce('gravity'), 'strength', -9.81);
    const world = under([newForce('gravity'), lift]);
    world.advance(60);
    for (const v of vectorsOf(world, 'velocity')) expect(Math.abs(v[1])).toBeLessThan(1e-5);
  });

  it('that are muted do nothing', () => {
    const world = under([{ ...newForce('gravity'), muted: true }]);
    world.advance(30);
    for (const v of vectorsOf(world, 'velocity')) expect(Math.hypot(...v)).toBe(0);
  });

  it('never make anything infinite, however wild', () => {
    const wild = withNumber(newForce('attraction', atEffect([0, 1, 0])), 'strength', 1000);
    const drag = withNumber(newForce('drag'), 'strength', 1000);
    for (const forces of [
      [wild],
      [drag, wild],
      [withNumber(newForce('curl'), 'size', 0.01)],
      [withNumber(newForce('gravity'), 'strength', -1000)],
    ]) {
      const world = under(forces);
      world.advance(600);
      for (const vector of [...vectorsOf(world, 'position'), ...vectorsOf(world, 'velocity')])
        for (const x of vector) expect(Number.isFinite(x)).toBe(true);
    }
  });
});

describe('a group', () => {
  it('of twice the scale makes the same picture twice as large', () => {
    const forces = () => [newForce('gravity'), newForce('vortex', atEffect([0, 1, 0])), newForce('drag')];
    const plain = under(forces());
    const scaled = under(forces(), (effect) => {
      effect.groups = collectionOf([
        ['big', { name: 'Big', parent: null, translation: [0, 0, 0], rotation: [0, 0, 0], scale: 2, linked: null }],
      ]);
      effect.layers.byId['motes']!.parent = 'big';
    });
    plain.advance(40);
    scaled.advance(40);
    const places = vectorsOf(plain, 'position');
    vectorsOf(scaled, 'position').forEach((p, i) =>
      p.forEach((x, axis) => expect(x).toBeCloseTo(2 * places[i]![axis]!, 4)),
    );
  });

  it('that is moved and turned carries its layers', () => {
    const moved = under([], (effect) => {
      effect.groups = collectionOf([
        [
          'outer',
          { name: 'Outer', parent: null, translation: [5, 0, 0], rotation: [0, 90, 0], scale: 1, linked: null },
        ],
        [
          'inner',
          { name: 'Inner', parent: 'outer', translation: [0, 0, 2], rotation: [0, 0, 0], scale: 1, linked: null },
        ],
      ]);
      effect.layers.byId['motes']!.parent = 'inner';
    });
    moved.advance(1);
    const middle = [0, 1, 2].map((axis) => vectorsOf(moved, 'position').reduce((sum, p) => sum + p[axis]! / 50, 0));
    expect(distanceTo([7, 1, 0])(middle)).toBeLessThan(0.3);
  });
});
