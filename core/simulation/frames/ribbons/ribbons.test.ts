import { describe, expect, it } from 'vitest';
import {
  atBone,
  atEffect,
  burst,
  collectionOf,
  inWorld,
  newForce,
  newLayer,
  newLink,
  newRibbon,
  newSurface,
  setNumber,
  type Effect,
  type Layer,
  type NumberSetting,
  type Ribbon,
} from '../../../document/index.ts';
import { effectOf, onStage, TUBE } from '../../../testing/effects.ts';
import { kernelBytes } from '../../../testing/kernelBytes.ts';
import { frameOf } from '../../../testing/riders.ts';
import { bendingTube } from '../../../testing/rigs.ts';
import {
  JOINT_AGE,
  JOINT_ENDS,
  JOINT_METRES,
  JOINT_OPACITY,
  JOINT_SIDE,
  JOINT_TO,
  JOINT_WIDTH,
  JOINT_WORDS,
} from '../frame.ts';
import { Scene, Instance } from '../../index.ts';
import { playAlone } from '../../world/world.ts';

interface Joint {
  readonly at: number[];
  readonly metres: number;
  readonly width: number;
  readonly age: number;
  readonly opacity: number;
  readonly side: number[];
}

/** The ribbons of a layer at the end of the step, joint by joint from the tail to the head. */
function ribbonsOf(world: Instance, salt = 1234): Joint[][] {
  const frame = frameOf(world);
  const layer = frame.layer(salt)!;
  const ribbons: Joint[][] = [];
  let open: Joint[] = [];
  for (let n = 0; n < layer.jointCount; n++) {
    const o = frame.jointAt(layer.jointStart + n);
    const words = frame.f32.subarray(o, o + JOINT_WORDS);
    open.push({
      at: [...words.subarray(JOINT_TO, JOINT_TO + 3)],
      metres: words[JOINT_METRES]!,
      width: words[JOINT_WIDTH]! * 2,
      age: words[JOINT_AGE]!,
      opacity: words[JOINT_OPACITY]!,
      side: [...words.subarray(JOINT_SIDE, JOINT_SIDE + 3)],
    });
    if (words[JOINT_ENDS] === 0) continue;
    ribbons.push(open);
    open = [];
  }
  expect(open).toEqual([]);
  return ribbons;
}
const apart = (a: readonly number[], b: readonly number[]) => Math.hypot(...a.map((x, axis) => x - b[axis]!));
const lengthOf = (joints: readonly Joint[]) =>
  joints.slice(1).reduce((sum, joint, n) => sum + apart(joint.at, joints[n]!.at), 0);

function setRibbon(ribbon: Ribbon, numbers: Record<string, number>): Ribbon {
  const settings = ribbon.settings as unknown as Record<string, NumberSetting>;
  for (const [name, value] of Object.entries(numbers)) settings[name]!.base = { kind: 'fixed', value };
  return ribbon;
}

/** Three particles leave a point at once and fly straight along X at 2 m/s for a second. */
function flown(drawn: Ribbon, shape: (layer: Layer, effect: Effect) => void = () => undefined): Effect {
  return effectOf((layer, effect) => {
    effect.stretches = { opening: 3, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
    layer.drawn = drawn;
    layer.source = { kind: 'point', place: inWorld([0, 1, 0]) };
    setNumber(layer, 'births.rate', 0);
    setNumber(layer, 'births.life', 1);
    setNumber(layer, 'life.size', 0.1);
    setNumber(layer, 'motion.speed', 2);
    layer.settings['motion.launch'].base = { kind: 'fixed', value: 'axis' };
    layer.settings['motion.axis'].base = { kind: 'fixed', value: [1, 0, 0] };
    layer.bursts = collectionOf([['b', burst('opening', 0.1, 3)]]);
    shape(layer, effect);
  });
}
function at(effect: Effect, step: number, options = {}): Instance {
  const world = playAlone(effect, new Map([[TUBE, bendingTube()]]), {}, options);
  world.advance(step);
  return world;
}

describe('a trail', () => {
  it('lies where its particle has come from, laid at even metres, as long as it lasts', () => {
    const effect = flown(setRibbon(newRibbon('trail'), { every: 0.1, lasts: 0.3 }));
    for (const step of [20, 30, 45]) {
      const ribbons = ribbonsOf(at(effect, step));
      expect(ribbons.length).toBe(3);
      const lived = step / 60 - 0.1;
      for (const joints of ribbons) {
        const [tail, head] = [joints[0]!, joints[joints.length - 1]!];
        expect(head.at[0]).toBeCloseTo(2 * lived, 4);
        expect(head.metres).toBeCloseTo(2 * lived, 4);
        expect(tail.at[0]).toBeCloseTo(2 * Math.max(0, lived - 0.3), 3);
        for (const joint of joints) expect(joint.metres).toBeCloseTo(joint.at[0]!, 4);
      }
    }
  });

  it('is wide and dressed as its settings say: by the size, narrower to the tail, older behind', () => {
    const drawn = setRibbon(newRibbon('trail'), { every: 0.05, lasts: 0.3, atHead: 100, atTail: 20 });
    const joints = ribbonsOf(at(flown(drawn), 45))[0]!;
    expect(joints[0]!.width).toBeCloseTo(0.02, 3);
    expect(joints[joints.length - 1]!.width).toBeCloseTo(0.1, 5);
    expect(joints[0]!.age).toBeCloseTo(1, 3);
    for (let n = 1; n < joints.length; n++) expect(joints[n]!.age).toBeLessThan(joints[n - 1]!.age);
  });

  it('stays behind when its particle has died, and draws in to nothing; or goes with it', () => {
    const stays = flown(setRibbon(newRibbon('trail'), { lasts: 0.5 }));
    const after = ribbonsOf(at(stays, 80));
    expect(after.length).toBe(3);
    expect(after[0]![after[0]!.length - 1]!.at[0]).toBeCloseTo(2, 3);
    expect(after[0]![0]!.at[0]).toBeCloseTo(2 * (80 / 60 - 0.1 - 0.5), 2);
    expect(ribbonsOf(at(stays, 98)).length).toBe(0);
    const goes = flown(setRibbon(newRibbon('trail'), { lasts: 0.5 }));
    const drawn = goes.layers.byId['motes']!.drawn as Extract<Ribbon, { kind: 'trail' }>;
    drawn.settings.ends.base = { kind: 'fixed', value: 'goes too' };
    expect(ribbonsOf(at(goes, 60)).length).toBe(3);
    expect(ribbonsOf(at(goes, 67)).length).toBe(0);
  });

  it('never jumps: from step to step it grows and draws in by no more than its particle goes', () => {
    const effect = flown(setRibbon(newRibbon('trail'), { every: 0.4, lasts: 0.35 }));
    const world = at(effect, 6);
    let before = 0;
    for (let step = 7; step < 95; step++) {
      world.advance(step);
      const joints = ribbonsOf(world)[0];
      const length = joints ? lengthOf(joints) : 0;
      expect(Math.abs(length - before)).toBeLessThan((2 / 60) * 1.05);
      before = length;
    }
    expect(before).toBe(0);
  });

  it('keeps its metres at every place it lies, while its head flies on and its tail goes', () => {
    const effect = flown(setRibbon(newRibbon('trail'), { every: 0.05, lasts: 0.6 }), (layer) => {
      layer.forces = collectionOf([['v', newForce('vortex', inWorld([0.4, 1, 0.4]))]]);
      setNumber(layer, 'births.life', 2);
    });
    const world = at(effect, 30);
    const seen = ribbonsOf(world)[0]!;
    const place = seen[Math.floor(seen.length * 0.7)]!;
    let looked = 0;
    for (let step = 31; step < 50; step++) {
      world.advance(step);
      const joints = ribbonsOf(world)[0]!;
      // Where the ribbon passes the place now: on the piece that is nearest to it.
      let [best, metres] = [Infinity, NaN];
      for (let n = 1; n < joints.length; n++) {
        const [a, b] = [joints[n - 1]!, joints[n]!];
        const way = b.at.map((x, axis) => x - a.at[axis]!);
        const size = way.reduce((sum, x) => sum + x * x, 0);
        const dot = way.reduce((sum, x, axis) => sum + x * (place.at[axis]! - a.at[axis]!), 0);
        const t = Math.max(0, Math.min(1, dot / size));
        const gap = apart(
          place.at,
          a.at.map((x, axis) => x + way[axis]! * t),
        );
        if (gap < best) [best, metres] = [gap, a.metres + (b.metres - a.metres) * t];
      }
      expect(best).toBeLessThan(0.002);
      expect(Math.abs(metres - place.metres)).toBeLessThan(0.01 * place.metres);
      looked++;
    }
    expect(looked).toBe(19);
  });

  it('is laid by time where a particle is slow, and at every place it bounces', () => {
    const slow = flown(setRibbon(newRibbon('trail'), { every: 5, seconds: 0.05, lasts: 5 }));
    expect(ribbonsOf(at(slow, 40))[0]!.length).toBeGreaterThanOrEqual(11);
    const bounced = flown(setRibbon(newRibbon('trail'), { every: 5, lasts: 5 }), (_, effect) => {
      const wall = newSurface('ground', { place: inWorld([0.73, 1, 0], [0, 0, 90]) });
      (wall.settings.bounce as NumberSetting).base = { kind: 'fixed', value: 100 };
      effect.surfaces = collectionOf([['wall', wall]]);
    });
    const joints = ribbonsOf(at(bounced, 40))[0]!;
    expect(Math.max(...joints.map(({ at: [x] }) => x!))).toBeCloseTo(0.73, 2);
    expect(joints[joints.length - 1]!.metres).toBeCloseTo(2 * (40 / 60 - 0.1), 3);
  });

  it('drifts with a share of its particle’s velocity, and feels its forces, only when told to', () => {
    const settings = { every: 0.05, lasts: 2 };
    const tailOf = (shape: (layer: Layer) => void, numbers = {}) => {
      const effect = flown(setRibbon(newRibbon('trail'), { ...settings, ...numbers }), shape);
      return ribbonsOf(at(effect, 36))[0]![0]!.at;
    };
    const falls = (layer: Layer) => (layer.forces = collectionOf([['g', newForce('gravity')]]));
    expect(tailOf(() => undefined)).toEqual([0, 1, 0]);
    expect(tailOf(falls)).toEqual([0, 1, 0]);
    expect(tailOf(() => undefined, { drift: 25 })[0]).toBeCloseTo(0.25 * 2 * 0.5, 3);
    const felt = tailOf((layer) => {
      falls(layer);
      const drawn = layer.drawn as Extract<Ribbon, { kind: 'trail' }>;
      drawn.settings.feels.base = { kind: 'fixed', value: true };
    });
    expect(1 - felt[1]!).toBeCloseTo((9.81 * 0.5 * 0.5) / 2, 1);
  });

  it('may be shown by a layer that follows, beside the heads themselves', () => {
    const effect = flown(newRibbon('trail'), (layer, whole) => {
      const tails = newLayer('tails', 99);
      tails.population = { kind: 'follows', layer: 'motes' };
      tails.drawn = layer.drawn;
      layer.drawn = { kind: 'sprite' };
      whole.layers = collectionOf([
        ['motes', layer],
        ['tails', tails],
      ]);
    });
    const world = at(effect, 40);
    expect(frameOf(world).layer(1234)!.count).toBe(3);
    expect(frameOf(world).layer(99)!.count).toBe(0);
    expect(ribbonsOf(world, 99).length).toBe(3);
  });

  it('refuses points beyond its most, and counts them', () => {
    const effect = flown(setRibbon(newRibbon('trail'), { every: 0.01, lasts: 5, most: 50 }));
    const world = at(effect, 60);
    expect(lengthOf(ribbonsOf(world)[0]!)).toBeGreaterThan(0);
    expect(world.laid('motes')).toEqual({ living: 50, refused: expect.any(Number) as number });
    expect(world.laid('motes')!.refused).toBeGreaterThan(100);
  });

  it('gives the same bits by kernel and twin, played and gone back to', () => {
    const effect = flown(setRibbon(newRibbon('trail'), { drift: 30 }), (layer, whole) => {
      layer.forces = collectionOf([
        ['c', newForce('curl')],
        ['g', newForce('gravity')],
      ]);
      (layer.drawn as Extract<Ribbon, { kind: 'trail' }>).settings.feels.base = { kind: 'fixed', value: true };
      whole.surfaces = collectionOf([['g', newSurface('ground', { place: inWorld() })]]);
      setNumber(layer, 'births.rate', 60);
    });
    const straight = at(effect, 70, { historyBytes: 0 });
    const kernels = at(effect, 100, { kernels: kernelBytes() });
    kernels.advance(70);
    expect(kernels.hash()).toBe(straight.hash());
    expect(ribbonsOf(straight).length).toBeGreaterThan(20);
  });
});

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
