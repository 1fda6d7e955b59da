import { describe, expect, it } from 'vitest';
import {
  atEffect,
  collectionOf,
  newForce,
  setNumber,
  type Effect,
  type Force,
  type NumberSetting,
  type Place,
} from '../document/index.ts';
import { effectOf } from '../testing/effects.ts';
import { World } from './world.ts';

const STRENGTH = (force: Force, name: string, value: number) => {
  (force.settings as unknown as Record<string, NumberSetting>)[name]!.base = { kind: 'fixed', value };
  return force;
};

/** Fifty particles born at once, still, on a sphere about a metre up; then these forces. */
function under(forces: Force[], shape: (effect: Effect) => void = () => undefined): World {
  const effect = effectOf((layer) => {
    layer.source = { kind: 'sphere', place: atEffect([0, 1, 0]) };
    setNumber(layer, 'births.rate', 0);
    setNumber(layer, 'births.life', 60);
    setNumber(layer, 'motion.speed', 0);
    layer.bursts = collectionOf([['all', { stretch: 'opening', at: 0, count: 50 }]]);
    layer.forces = collectionOf(forces.map((force, i) => [`f${i}`, force]));
  });
  shape(effect);
  return new World(effect, new Map());
}

const vectors = (world: World, of: 'position' | 'velocity') => {
  const population = world.population('motes')!;
  return Array.from(
    { length: population.count },
    (_, i) => population[of].map((axis) => axis[i]!) as [number, number, number],
  );
};
const distanceTo = (point: readonly number[]) => (p: readonly number[]) =>
  Math.hypot(...p.map((x, i) => x - point[i]!));

describe('gravity', () => {
  it('drops particles by half the acceleration times the time squared', () => {
    const world = under([newForce('gravity')]);
    world.advance(1);
    const before = vectors(world, 'position');
    const speed = vectors(world, 'velocity')[0]![1];
    world.advance(61);
    vectors(world, 'position').forEach((p, i) => expect(p[1] - before[i]![1]).toBeCloseTo(speed - 9.81 / 2, 3));
  });
});

describe('drag', () => {
  it.each([30, 60, 240])('leaves exactly e to the minus kt of the speed, at %i steps a second', (rate) => {
    const effect = effectOf((layer) => {
      setNumber(layer, 'births.rate', 0);
      setNumber(layer, 'births.life', 60);
      setNumber(layer, 'motion.speed', 10);
      layer.bursts = collectionOf([['all', { stretch: 'opening', at: 0, count: 20 }]]);
      layer.forces = collectionOf([['drag', STRENGTH(newForce('drag'), 'strength', 2.5)]]);
    });
    const world = new World(effect, new Map(), {}, { rate });
    world.advance(rate);
    for (const v of vectors(world, 'velocity')) expect(Math.hypot(...v)).toBeCloseTo(10 * Math.exp(-2.5), 4);
  });
});

describe('attraction', () => {
  const lamp: Place = atEffect([2, 1, 0]);
  it('draws particles nearer, and pushes them away when negative', () => {
    for (const strength of [3, -3]) {
      const world = under([STRENGTH(newForce('attraction', lamp), 'strength', strength)]);
      world.advance(1);
      const before = vectors(world, 'position').map(distanceTo([2, 1, 0]));
      world.advance(20);
      vectors(world, 'position')
        .map(distanceTo([2, 1, 0]))
        .forEach((d, i) => expect(Math.sign(before[i]! - d)).toBe(Math.sign(strength)));
    }
  });

  it('does nothing beyond its reach', () => {
    const world = under([STRENGTH(newForce('attraction', lamp), 'reach', 1)]);
    world.advance(30);
    for (const v of vectors(world, 'velocity')) expect(Math.hypot(...v)).toBe(0);
  });
});

describe('the vortex', () => {
  it('turns particles round its axis, one way, and the other when negative', () => {
    for (const strength of [2, -2]) {
      const world = under([STRENGTH(newForce('vortex', atEffect([0, 1, 0])), 'strength', strength)]);
      world.advance(10);
      const places = vectors(world, 'position');
      vectors(world, 'velocity').forEach(([x, , z], i) => {
        const [px, , pz] = places[i]!;
        expect(Math.sign(pz * x - px * z)).toBe(Math.sign(strength));
      });
    }
  });

  it('lifts along its axis', () => {
    const still = STRENGTH(newForce('vortex', atEffect([0, 1, 0])), 'strength', 0);
    const world = under([STRENGTH(still, 'lift', 1.5)]);
    world.advance(60);
    for (const v of vectors(world, 'velocity')) expect(v[1]).toBeCloseTo(1.5, 2);
  });
});

describe('curl noise', () => {
  it('stirs particles apart from one another and changes with time only if told to', () => {
    const world = under([newForce('curl')]);
    world.advance(30);
    const speeds = vectors(world, 'velocity');
    expect(new Set(speeds.map(([x]) => Math.sign(x))).size).toBe(2);
    const still = STRENGTH(newForce('curl'), 'change', 0);
    const calls = [10, 50].map((step) => {
      const other = under([STRENGTH(still, 'strength', 1e-3)]);
      other.advance(step);
      const before = vectors(other, 'velocity')[0]!;
      other.advance(step + 1);
      return vectors(other, 'velocity')[0]!.map((v, axis) => v - before[axis]!);
    });
    calls[0]!.forEach((a, axis) => expect(a).toBeCloseTo(calls[1]![axis]!, 6));
  });
});

describe('forces together', () => {
  it('add up: gravity and a lift against it leave a particle where it is', () => {
    const lift = STRENGTH(newForce('gravity'), 'strength', -9.81);
    const world = under([newForce('gravity'), lift]);
    world.advance(60);
    for (const v of vectors(world, 'velocity')) expect(Math.abs(v[1])).toBeLessThan(1e-5);
  });

  it('that are muted do nothing', () => {
    const world = under([{ ...newForce('gravity'), muted: true }]);
    world.advance(30);
    for (const v of vectors(world, 'velocity')) expect(Math.hypot(...v)).toBe(0);
  });

  it('never make anything infinite, however wild', () => {
    const wild = STRENGTH(newForce('attraction', atEffect([0, 1, 0])), 'strength', 1000);
    const drag = STRENGTH(newForce('drag'), 'strength', 1000);
    for (const forces of [
      [wild],
      [drag, wild],
      [STRENGTH(newForce('curl'), 'size', 0.01)],
      [STRENGTH(newForce('gravity'), 'strength', -1000)],
    ]) {
      const world = under(forces);
      world.advance(600);
      for (const vector of [...vectors(world, 'position'), ...vectors(world, 'velocity')])
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
        ['big', { name: 'Big', parent: null, translation: [0, 0, 0], rotation: [0, 0, 0], scale: 2 }],
      ]);
      effect.layers.byId['motes']!.parent = 'big';
    });
    plain.advance(40);
    scaled.advance(40);
    const places = vectors(plain, 'position');
    vectors(scaled, 'position').forEach((p, i) =>
      p.forEach((x, axis) => expect(x).toBeCloseTo(2 * places[i]![axis]!, 4)),
    );
  });

  it('that is moved and turned carries its layers', () => {
    const moved = under([], (effect) => {
      effect.groups = collectionOf([
        ['outer', { name: 'Outer', parent: null, translation: [5, 0, 0], rotation: [0, 90, 0], scale: 1 }],
        ['inner', { name: 'Inner', parent: 'outer', translation: [0, 0, 2], rotation: [0, 0, 0], scale: 1 }],
      ]);
      effect.layers.byId['motes']!.parent = 'inner';
    });
    moved.advance(1);
    const middle = [0, 1, 2].map((axis) => vectors(moved, 'position').reduce((sum, p) => sum + p[axis]! / 50, 0));
    expect(distanceTo([7, 1, 0])(middle)).toBeLessThan(0.3);
  });
});
