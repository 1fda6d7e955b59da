import { describe, expect, it } from 'vitest';
import {
  atBone,
  atEffect,
  burst,
  collectionOf,
  inWorld,
  newLayer,
  newLink,
  newRibbon,
  setNumber,
  type Effect,
  type Layer,
} from '../../../document/index.ts';
import { onStage, TUBE } from '../../../testing/effects.ts';
import { bendingTube } from '../../../testing/rigs.ts';
import { Scene, Instance } from '../../index.ts';
import { ribbonsOf, apart, setRibbon, flown, at } from '../../../testing/ribbons.ts';

describe('a strand', () => {
  const strung = (numbers: Record<string, number>) =>
    flown(setRibbon(newRibbon('strand'), numbers), (layer) => {
      layer.bursts = collectionOf([]);
      setNumber(layer, 'births.rate', 20);
    });

  it('goes through the particles in the order of their births, and keeps its metres as they die', () => {
    const world = at(strung({ strands: 1 }), 50);
    const [joints, none] = ribbonsOf(world);
    expect(none).toBeUndefined();
    const population = world.population('motes')!;
    const places = [...population.position[0].subarray(0, population.count)];
    for (const x of places)
      expect(Math.min(...joints!.map(({ at: [own] }) => Math.abs(own! - x)))).toBeLessThan(1e-5);
    const metresAt = (w: Instance, number: number) => {
      const p = w.population('motes')!;
      const i = [...p.number.subarray(0, p.count)].indexOf(number);
      return ribbonsOf(w)[0]!.find(({ at: [x] }) => Math.abs(x! - p.position[0][i]!) < 1e-5)!.metres;
    };
    const number = population.number[12]!;
    const before = metresAt(world, number);
    world.advance(65);
    expect(metresAt(world, number)).toBe(before);
  });

  it('is one of several where so asked, and is cut at gaps', () => {
    expect(ribbonsOf(at(strung({ strands: 3 }), 60)).length).toBe(3);
    const bursts = flown(setRibbon(newRibbon('strand'), { longest: 0.5 }), (layer) => {
      layer.bursts = collectionOf([
        ['a', burst('opening', 0.1, 4)],
        ['b', burst('opening', 0.6, 4)],
      ]);
      setNumber(layer, 'motion.speed', [1.9, 2.1]);
    });
    expect(ribbonsOf(at(bursts, 50)).length).toBe(2);
  });
});

describe('a blade', () => {
  it('sweeps an arc, true to the pose within 2 mm at 2,000 looks a second, however fast it goes', () => {
    const rig = bendingTube();
    const [from, to] = [atBone('figure', 'high', [0, 0.2, 0]), atBone('figure', 'high', [0, 1.2, 0])];
    const effect = flown(setRibbon(newRibbon('blade', from, to), { lasts: 0.25 }), (layer, whole) => {
      whole.stage.things = onStage('sway', { kind: 'circle', radius: 1.5 });
      setNumber(layer, 'births.standing', 1);
      layer.bursts = collectionOf([]);
    });
    const world = at(effect, 40);
    const [joints, none] = ribbonsOf(world);
    expect(none).toBeUndefined();
    const scene = new Scene(effect.stage, new Map([[TUBE, rig]]));
    scene.clock = world.clock;
    const m = new Float64Array(16);
    const placeOf = (place: typeof from, time: number) => {
      scene.placeInto(m, place, time, null);
      return [m[12]!, m[13]!, m[14]!];
    };
    const edges = [-1, 1].map((sign) =>
      joints!.map((j) => j.at.map((x, axis) => x + (sign * j.side[axis]! * j.width) / 2)),
    );
    const toEdge = (p: number[], edge: number[][]) =>
      Math.min(
        ...edge.slice(1).map((b, n) => {
          const a = edge[n]!;
          const way = b.map((x, axis) => x - a[axis]!);
          const size = way.reduce((sum, x) => sum + x * x, 0);
          const dot = way.reduce((sum, x, axis) => sum + x * (p[axis]! - a[axis]!), 0);
          return apart(
            p,
            a.map((x, axis) => x + way[axis]! * Math.max(0, Math.min(1, dot / (size || 1)))),
          );
        }),
      );
    let swept = 0;
    for (let k = 0; k <= 500; k++) {
      const time = 40 / 60 - 0.25 + k / 2000;
      expect(toEdge(placeOf(from, time), edges[0]!)).toBeLessThan(0.002);
      expect(toEdge(placeOf(to, time), edges[1]!)).toBeLessThan(0.002);
      if (k > 0) swept += apart(placeOf(to, time), placeOf(to, time - 1 / 2000));
    }
    expect(swept).toBeGreaterThan(1.3);
    expect(joints![0]!.age).toBeCloseTo(1, 4);
    expect(joints![joints!.length - 1]!.age).toBe(0);
  });
});

describe('a beam', () => {
  const beamed = (numbers: Record<string, number>, shape: (layer: Layer, effect: Effect) => void = () => undefined) =>
    flown(setRibbon(newRibbon('beam', inWorld([0, 1, 0]), inWorld([4, 1, 0])), { jag: 0, ...numbers }), shape);

  it('goes from place to place, sags in the middle, and is thrown aside no further than told', () => {
    const sagging = ribbonsOf(at(beamed({ sag: 0.5 }), 30))[0]!;
    expect(sagging[0]!.at).toEqual([0, 1, 0]);
    expect(apart(sagging[sagging.length - 1]!.at, [4, 1, 0])).toBeLessThan(1e-6);
    expect(Math.min(...sagging.map(({ at: [, y] }) => y!))).toBeCloseTo(0.5, 5);
    const jagged = ribbonsOf(at(beamed({ jag: 0.3, jagSize: 0.2 }), 30));
    const off = jagged[0]!.map(({ at: [, y, z] }) => Math.hypot(y! - 1, z!));
    expect(Math.max(...off)).toBeLessThan(0.3 * Math.SQRT2 + 1e-6);
    expect(Math.max(...off)).toBeGreaterThan(0.1);
    expect(off[0]).toBe(0);
    expect(jagged[1]!.map(({ at: p }) => p)).not.toEqual(jagged[0]!.map(({ at: p }) => p));
  });

  it('takes another way as often as it strikes anew, and the same way between', () => {
    const world = at(beamed({ jag: 0.3, strikes: 10 }), 10);
    const ways: string[] = [];
    for (let step = 10; step < 40; step++) {
      world.advance(step);
      ways.push(JSON.stringify(ribbonsOf(world)[0]!.map(({ at: p }) => p)));
    }
    expect(new Set(ways).size).toBe(6);
  });

  it('has branches that begin on it and are no longer than told', () => {
    const ribbons = ribbonsOf(at(beamed({ branches: 4, branchLength: 0.6, jag: 0.1 }), 30));
    expect(ribbons.length).toBe(3 * 5);
    const [main, ...branches] = ribbons.slice(0, 5);
    for (const branch of branches) {
      const root = branch[0]!.at;
      const gap = Math.min(
        ...main!.slice(1).map((b, n) => {
          const a = main![n]!.at;
          const way = b.at.map((x, axis) => x - a[axis]!);
          const dot = way.reduce((sum, x, axis) => sum + x * (root[axis]! - a[axis]!), 0);
          const t = Math.max(0, Math.min(1, dot / way.reduce((sum, x) => sum + x * x, 0)));
          return apart(
            root,
            a.map((x, axis) => x + way[axis]! * t),
          );
        }),
      );
      expect(gap).toBeLessThan(0.01);
      expect(apart(root, branch[branch.length - 1]!.at)).toBeLessThanOrEqual(0.61);
    }
  });

  it('reaches out at its speed, and hits once, where and when it arrives', () => {
    const effect = beamed({ speed: 8 }, (layer, whole) => {
      const spark = newLayer('spark', 50);
      spark.source = { kind: 'point', place: inWorld() };
      setNumber(spark, 'births.rate', 0);
      setNumber(spark, 'births.life', 9);
      setNumber(spark, 'motion.speed', 0);
      const link = newLink('hit', 'spark', 4);
      link.settings.count.base = { kind: 'fixed', value: 1 };
      layer.links = collectionOf([['hit', link]]);
      whole.layers = collectionOf([
        ['motes', layer],
        ['spark', spark],
      ]);
    });
    const under = ribbonsOf(at(effect, 24))[0]!;
    expect(under[under.length - 1]!.at[0]).toBeCloseTo(8 * (24 / 60 - 0.1), 4);
    const world = at(effect, 60);
    const sparks = world.population('spark')!;
    expect(sparks.count).toBe(3);
    for (let i = 0; i < 3; i++) {
      expect((sparks.birthStep[i]! + sparks.birthFraction[i]!) / 60).toBeCloseTo(0.1 + 0.5, 3);
      expect(sparks.position[0][i]).toBeCloseTo(4, 5);
    }
  });

  it('goes with its ends as they move', () => {
    const effect = beamed({}, (layer, whole) => {
      whole.stage.things = onStage('sway');
      layer.drawn = newRibbon('beam', atEffect([0, 1, 0]), atBone('figure', 'high', [0, 0.5, 0]));
    });
    const ends = [20, 40].map((step) => {
      const joints = ribbonsOf(at(effect, step))[0]!;
      return joints[joints.length - 1]!.at;
    });
    expect(apart(ends[0]!, ends[1]!)).toBeGreaterThan(0.05);
  });
});
