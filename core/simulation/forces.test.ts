import { describe, expect, it } from 'vitest';
import {
  atEffect,
  atThing,
  burst,
  collectionOf,
  curveShaper,
  forceOfKind,
  newForce,
  setNumber,
  type Force,
  type Layer,
  type NumberSetting,
  type Place,
} from '../document/index.ts';
import { effectOf, onStage, TUBE } from '../testing/effects.ts';
import { closedBox } from '../testing/rigs.ts';
import { kernelBytes } from '../testing/kernelBytes.ts';
import { distanceTo, under, vectorsOf as vectors, withNumber, withValue } from '../testing/storms.ts';
import { World } from './world.ts';

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
      layer.bursts = collectionOf([['all', burst('opening', 0, 20)]]);
      layer.forces = collectionOf([['drag', withNumber(newForce('drag'), 'strength', 2.5)]]);
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
      const world = under([withNumber(newForce('attraction', lamp), 'strength', strength)]);
      world.advance(1);
      const before = vectors(world, 'position').map(distanceTo([2, 1, 0]));
      world.advance(20);
      vectors(world, 'position')
        .map(distanceTo([2, 1, 0]))
        .forEach((d, i) => expect(Math.sign(before[i]! - d)).toBe(Math.sign(strength)));
    }
  });

  it('does nothing beyond its reach', () => {
    const world = under([withNumber(newForce('attraction', lamp), 'reach', 1)]);
    world.advance(30);
    for (const v of vectors(world, 'velocity')) expect(Math.hypot(...v)).toBe(0);
  });
});

describe('the vortex', () => {
  it('turns particles round its axis, one way, and the other when negative', () => {
    for (const strength of [2, -2]) {
      const world = under([withNumber(newForce('vortex', atEffect([0, 1, 0])), 'strength', strength)]);
      world.advance(10);
      const places = vectors(world, 'position');
      vectors(world, 'velocity').forEach(([x, , z], i) => {
        const [px, , pz] = places[i]!;
        expect(Math.sign(pz * x - px * z)).toBe(Math.sign(strength));
      });
    }
  });

  it('lifts along its axis', () => {
    const still = withNumber(newForce('vortex', atEffect([0, 1, 0])), 'strength', 0);
    const world = under([withNumber(still, 'lift', 1.5)]);
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
    const still = withNumber(newForce('curl'), 'change', 0);
    const calls = [10, 50].map((step) => {
      const other = under([withNumber(still, 'strength', 1e-3)]);
      other.advance(step);
      const before = vectors(other, 'velocity')[0]!;
      other.advance(step + 1);
      return vectors(other, 'velocity')[0]!.map((v, axis) => v - before[axis]!);
    });
    calls[0]!.forEach((a, axis) => expect(a).toBeCloseTo(calls[1]![axis]!, 6));
  });
});

describe('wind', () => {
  it('takes particles along, as fast as itself in the end', () => {
    const wind = withValue(withNumber(withNumber(newForce('wind'), 'strength', 2), 'speed', 3), 'axis', [0, 0, 1]);
    const world = under([wind]);
    world.advance(30);
    for (const v of vectors(world, 'velocity')) expect(v[2]).toBeCloseTo(3 * (1 - Math.exp(-2 * 0.5)), 1);
    world.advance(600);
    for (const v of vectors(world, 'velocity')) expect(distanceTo([0, 0, 3])(v)).toBeLessThan(1e-3);
  });
});

describe('air drag', () => {
  it.each([30, 60, 240])('leaves 1 / (1 + c v t) of the speed, exactly, at %i steps a second', (rate) => {
    const air = withNumber(withNumber(newForce('drag'), 'strength', 0), 'air', 0.3);
    const world = under([air], (effect) => setNumber(effect.layers.byId['motes']!, 'motion.speed', 10), { rate });
    world.advance(rate);
    for (const v of vectors(world, 'velocity')) expect(Math.hypot(...v)).toBeCloseTo(10 / (1 + 0.3 * 10), 2);
  });
});

describe('attraction to a line', () => {
  it('draws toward the nearest point of it, and along it not at all', () => {
    const line = withValue(withNumber(newForce('attraction', atEffect([3, 1, 0])), 'length', 20), 'toward', 'line');
    const world = under([line]);
    world.advance(30);
    for (const v of vectors(world, 'velocity')) {
      expect(v[0]).toBeGreaterThan(0.5);
      expect(Math.abs(v[1])).toBeLessThan(1e-5);
    }
  });
});

describe('orbit', () => {
  const distances = (world: World) => vectors(world, 'position').map(([x, , z]) => Math.hypot(x, z));
  it('holds its distance from an axis within a thousandth for a minute', () => {
    for (const speed of [2.5, -4]) {
      const orbit = withNumber(withNumber(newForce('orbit'), 'distance', 1.4), 'speed', speed);
      const world = under([orbit], undefined, { kernels: kernelBytes() });
      for (let second = 1; second <= 60; second++) {
        world.advance(second * 60);
        for (const d of distances(world)) expect(Math.abs(d / 1.4 - 1)).toBeLessThan(0.001);
      }
      vectors(world, 'velocity').forEach((v) => expect(Math.hypot(...v)).toBeCloseTo(Math.abs(speed), 2));
    }
  });

  it('goes round one way, and the other when the speed is negative', () => {
    for (const speed of [2, -2]) {
      const world = under([withNumber(newForce('orbit'), 'speed', speed)]);
      world.advance(60);
      const places = vectors(world, 'position');
      vectors(world, 'velocity').forEach(([x, , z], i) =>
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
    const before = vectors(world, 'velocity').map((v) => Math.hypot(...v));
    world.advance(3600);
    vectors(world, 'velocity').forEach((v, i) => expect(Math.hypot(...v)).toBeCloseTo(before[i]!, 1));
    for (const p of vectors(world, 'position')) expect(distanceTo([0, 1, 0])(p)).toBeCloseTo(2, 3);
  });

  it('with less grip lets particles come from where they were', () => {
    const world = under([withNumber(withNumber(newForce('orbit'), 'distance', 3), 'grip', 5)]);
    world.advance(3);
    const early = distances(world);
    world.advance(240);
    distances(world).forEach((d, i) => {
      expect(early[i]!).toBeLessThan(1.2);
      expect(Math.abs(d - 3)).toBeLessThan(0.2);
    });
  });
});

describe('jitter', () => {
  it('shakes each its own way, and not always the same way', () => {
    const world = under([newForce('jitter')]);
    world.advance(10);
    const early = vectors(world, 'velocity');
    expect(new Set(early.map(([x]) => x)).size).toBe(50);
    expect(new Set(early.map(([x]) => Math.sign(x))).size).toBe(2);
    world.advance(120);
    const turned = vectors(world, 'velocity').filter(([x], i) => Math.sign(x) !== Math.sign(early[i]![0]));
    expect(turned.length).toBeGreaterThan(5);
  });
});

describe('the spreading push', () => {
  const push = () => withNumber(withNumber(newForce('push', atEffect([0, 1, 0])), 'speed', 5), 'start', 0.5);
  it('reaches particles when its shell does, and pushes them outward', () => {
    const world = under([withNumber(push(), 'width', 0.2)], (effect) =>
      setNumber(effect.layers.byId['motes']!, 'source.radius', 2),
    );
    // The shell leaves at 0.5 s and needs 0.36 s to come within 0.2 m of the sphere.
    world.advance(50);
    for (const v of vectors(world, 'velocity')) expect(Math.hypot(...v)).toBe(0);
    world.advance(70);
    const places = vectors(world, 'position');
    vectors(world, 'velocity').forEach((v, i) => {
      const out = places[i]!.map((x, axis) => x - [0, 1, 0][axis]!);
      expect(v.reduce((sum, x, axis) => sum + x * out[axis]!, 0)).toBeGreaterThan(0.5);
    });
    const speeds = vectors(world, 'velocity').map((v) => Math.hypot(...v));
    world.advance(120);
    vectors(world, 'velocity').forEach((v, i) => expect(Math.hypot(...v)).toBeCloseTo(speeds[i]!, 5));
  });
});

describe('the speed limit', () => {
  it('lets nothing go faster', () => {
    const world = under([newForce('gravity'), withNumber(newForce('limit'), 'fastest', 3)]);
    world.advance(120);
    for (const v of vectors(world, 'velocity')) expect(Math.hypot(...v)).toBeCloseTo(3, 4);
  });
});

describe('velocity and displacement over age', () => {
  const rise = curveShaper([
    [0, 0],
    [1, 1],
  ]);
  const shortLived = (effect: Parameters<NonNullable<Parameters<typeof under>[1]>>[0]) =>
    setNumber(effect.layers.byId['motes']!, 'births.life', 2);
  it('a velocity moves particles without momentum', () => {
    const world = under([withNumber(withNumber(newForce('velocity'), 'x', 2), 'y', 0)]);
    world.advance(1);
    const before = vectors(world, 'position');
    world.advance(61);
    vectors(world, 'position').forEach((p, i) => expect(p[0] - before[i]![0]).toBeCloseTo(2, 4));
    for (const v of vectors(world, 'velocity')) expect(Math.hypot(...v)).toBe(0);
  });

  it('a displacement moves particles by as much as its curve has changed', () => {
    const world = under([withNumber(newForce('displacement'), 'z', 3, rise)], shortLived);
    world.advance(1);
    const before = vectors(world, 'position');
    world.advance(61);
    vectors(world, 'position').forEach((p, i) => expect(p[2] - before[i]![2]).toBeCloseTo(1.5, 3));
  });

  it('turns with the group the layer stands in', () => {
    const world = under([withNumber(withNumber(newForce('velocity'), 'x', 2), 'y', 0)], (effect) => {
      effect.groups = collectionOf([
        [
          'turned',
          { name: 'Turned', parent: null, translation: [0, 0, 0], rotation: [0, 90, 0], scale: 1, linked: null },
        ],
      ]);
      effect.layers.byId['motes']!.parent = 'turned';
    });
    world.advance(1);
    const before = vectors(world, 'position');
    world.advance(61);
    vectors(world, 'position').forEach((p, i) => {
      expect(p[2] - before[i]![2]).toBeCloseTo(-2, 3);
      expect(p[0] - before[i]![0]).toBeCloseTo(0, 3);
    });
  });
});

describe('where and on whom a force acts', () => {
  const moved = (world: World) => vectors(world, 'velocity').map((v) => Math.hypot(...v) > 0);
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
    const distances = vectors(world, 'position').map(distanceTo([0.5, 1, 0]));
    const speeds = vectors(world, 'velocity').map((v) => -v[1] / (9.81 / 60));
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
    const speeds = vectors(some, 'velocity').map((v) => Math.hypot(...v));
    let stopped = 0;
    vectors(all, 'velocity').forEach((v, i) => {
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
      return ['motes', 'other'].map((id) => vectors(world, 'velocity', id).every((v) => v[1] < -1));
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
      const [shaped, plain] = [world, still].map((each) => vectors(each, 'velocity')[0]![1]) as [number, number];
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
    for (const v of vectors(world, 'velocity')) expect(Math.abs(v[1])).toBeLessThan(1e-5);
  });

  it('that are muted do nothing', () => {
    const world = under([{ ...newForce('gravity'), muted: true }]);
    world.advance(30);
    for (const v of vectors(world, 'velocity')) expect(Math.hypot(...v)).toBe(0);
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
        ['big', { name: 'Big', parent: null, translation: [0, 0, 0], rotation: [0, 0, 0], scale: 2, linked: null }],
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
    const middle = [0, 1, 2].map((axis) => vectors(moved, 'position').reduce((sum, p) => sum + p[axis]! / 50, 0));
    expect(distanceTo([7, 1, 0])(middle)).toBeLessThan(0.3);
  });
});

describe('attraction to a thing’s skin', () => {
  const rigs = new Map([[TUBE, closedBox(1, [0, 1, 0])]]);
  const onBox = (toward: 'skin' | 'own spot', shape: (layer: Layer) => void) => {
    const effect = effectOf((layer, whole) => {
      whole.stage.things = onStage('');
      layer.forces = collectionOf([
        ['a', withValue(withNumber(newForce('attraction', atThing('figure')), 'strength', 30), 'toward', toward)],
        ['d', withNumber(newForce('drag'), 'strength', 6)],
      ]);
      setNumber(layer, 'births.life', 30);
      shape(layer);
    });
    const world = new World(effect, rigs);
    world.advance(240);
    return vectors(world, 'position');
  };

  it('draws each to the nearest spot of it, from wherever it is', () => {
    const places = onBox('skin', (layer) => {
      layer.source = { kind: 'sphere', place: atEffect([0, 1, 0]) };
      setNumber(layer, 'source.radius', 2);
      setNumber(layer, 'births.rate', 0);
      layer.bursts = collectionOf([['b', burst('opening', 0, 60)]]);
    });
    expect(places.length).toBe(60);
    for (const [x, y, z] of places)
      expect(Math.abs(Math.max(Math.abs(x!), Math.abs(y! - 1), Math.abs(z!)) - 0.5)).toBeLessThan(0.03);
    // From all round, so on every side of it.
    for (const axis of [0, 1, 2])
      for (const side of [-1, 1])
        expect(places.some((p) => (p[axis]! - (axis === 1 ? 1 : 0)) * side > 0.45)).toBe(true);
  });

  it('draws each back to the spot it was born on', () => {
    const places = onBox('own spot', (layer) => {
      layer.source = { kind: 'mesh', thing: 'figure', bones: [] };
      setNumber(layer, 'motion.speed', 3);
      setNumber(layer, 'births.rate', 0);
      layer.bursts = collectionOf([['b', burst('opening', 0, 60)]]);
    });
    for (const [x, y, z] of places)
      expect(Math.abs(Math.max(Math.abs(x!), Math.abs(y! - 1), Math.abs(z!)) - 0.5)).toBeLessThan(0.03);
  });
});
