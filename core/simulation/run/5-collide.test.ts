import { describe, expect, it } from 'vitest';
import {
  burst,
  collectionOf,
  curveShaper,
  inWorld,
  newForce,
  newSurface,
  setNumber,
  type Effect,
  type Layer,
  type NumberSetting,
  type Place,
  type Surface,
  type Vector,
} from '../../document/index.ts';
import { effectOf, onStage, TUBE } from '../../testing/effects.ts';
import { bendingTube, closedBox } from '../../testing/rigs.ts';
import { skinnedVertex, type Rig } from '../../geometry/index.ts';
import { Instance } from '../index.ts';
import { playAlone } from '../world/world.ts';

const BOX = 'b'.repeat(64);
const RIGS = new Map<string, Rig>([
  [TUBE, bendingTube()],
  [BOX, closedBox()],
]);

type Settings = Partial<
  Record<'bounce' | 'friction' | 'roughness' | 'offset' | 'share' | 'within' | 'radius' | 'tall', number>
>;
interface Wanted extends Settings {
  readonly act?: string;
  readonly side?: string;
}

function set<S extends Surface>(surface: S, { act, side, ...numbers }: Wanted): S {
  if (act) surface.settings.act.base = { kind: 'fixed', value: act };
  if (side) surface.settings.side.base = { kind: 'fixed', value: side };
  for (const [name, value] of Object.entries(numbers))
    (surface.settings as unknown as Record<string, NumberSetting>)[name]!.base = { kind: 'fixed', value };
  return surface;
}

/** One standing particle falls from a place. */
function falling(at: Vector, surface: Surface, shape: (layer: Layer, effect: Effect) => void = () => undefined) {
  return effectOf((layer, effect) => {
    layer.source = { kind: 'point', place: inWorld(at) };
    setNumber(layer, 'births.rate', 0);
    setNumber(layer, 'births.standing', 1);
    setNumber(layer, 'motion.speed', 0);
    layer.forces = collectionOf([['gravity', newForce('gravity', inWorld())]]);
    effect.surfaces = collectionOf([['surface', surface]]);
    shape(layer, effect);
  });
}

const worldOf = (effect: Effect) => playAlone(effect, RIGS);
function placeOf(world: Instance, i = 0): Vector {
  const { position } = world.population('motes')!;
  return [position[0][i]!, position[1][i]!, position[2][i]!];
}
function speedOf(world: Instance, i = 0): Vector {
  const { velocity } = world.population('motes')!;
  return [velocity[0][i]!, velocity[1][i]!, velocity[2][i]!];
}
const turning = (offset: Vector, perSecond: number): Place => {
  const place = inWorld(offset);
  const key = (at: number, turn: number) => ({
    at,
    offset,
    turn: [0, 0, turn] as Vector,
    ease: 'straight' as const,
  });
  place.keys = collectionOf([
    ['a', key(0, 0)],
    ['b', key(4, 4 * perSecond)],
  ]);
  return place;
};

describe('a rough surface', () => {
  /** Ways, of length 1, in which a thousand that fall at once leave the ground, at which they have met it. */
  function waysOff(roughness: number): Vector[] {
    const ground = set(newSurface('ground', { place: inWorld() }), { bounce: 80, friction: 0, roughness });
    const world = worldOf(
      falling([0, 1, 0], ground, (layer) => {
        setNumber(layer, 'births.standing', 1000);
        setNumber(layer, 'motion.speed', 0);
      }),
    );
    // The fall of a metre takes 0.45 s.
    world.advance(28);
    return Array.from({ length: 1000 }, (_, i) => speedOf(world, i));
  }
  const levelOf = ([x, , z]: Vector) => Math.hypot(x, z);

  it('throws what bounces any way off it, no faster and never into it', () => {
    const [smooth, half, rough] = [0, 50, 100].map(waysOff) as [Vector[], Vector[], Vector[]];
    for (const way of smooth) expect(levelOf(way)).toBeLessThan(1e-9);
    const mean = (ways: Vector[]) => ways.reduce((sum, way) => sum + levelOf(way), 0) / ways.length;
    expect(mean(half)).toBeGreaterThan(0.5);
    expect(mean(rough)).toBeGreaterThan(mean(half));
    const speed = Math.hypot(...smooth[0]!);
    for (const way of rough) expect(Math.hypot(...way)).toBeLessThan(speed + 0.7);
    // Scattered alike to all sides, by the cosine of the way up: two thirds of the speed go up on average.
    const middle = [0, 1, 2].map((axis) => rough.reduce((sum, way) => sum + way[axis]!, 0) / rough.length);
    expect(Math.abs(middle[0]!)).toBeLessThan(0.15);
    expect(Math.abs(middle[2]!)).toBeLessThan(0.15);
    // Gravity has had a twentieth of a second since.
    const begun = speed + 9.81 * 0.015;
    expect(middle[1]!).toBeGreaterThan(begun * 0.55);
    expect(middle[1]!).toBeLessThan(begun * 0.75);
  });

  it('scatters a bounce as before when it is computed anew, and the next otherwise', () => {
    expect(waysOff(70)).toEqual(waysOff(70));
    const ways = waysOff(70).map((way) => way.join());
    expect(new Set(ways).size).toBe(1000);
  });
});

describe('a surface', () => {
  it.each(['ground', 'box', 'sphere', 'mesh'] as const)(
    '(%s) throws a ball back as high as its bounce says',
    (kind) => {
      const place = inWorld([0, kind === 'ground' ? 0 : -0.5, 0]);
      const surface =
        kind === 'mesh' ? newSurface('mesh', { place, asset: BOX, name: 'block' }) : newSurface(kind, { place });
      const world = worldOf(falling([0, 2, 0], set(surface, { bounce: 80 })));
      const tops: number[] = [];
      for (let step = 1, before = 0; step < 200; step++) {
        world.advance(step);
        const speed = speedOf(world)[1];
        if (before > 0 && speed <= 0) tops.push(placeOf(world)[1]);
        before = speed;
      }
      expect(tops[0]).toBeCloseTo(2 * 0.64, 2);
      expect(tops[1]).toBeCloseTo(2 * 0.64 * 0.64, 2);
    },
  );

  it('lets a ball come to rest without jitter, on it and not in it', () => {
    const world = worldOf(falling([0.1, 1, 0], set(newSurface('box', { place: inWorld([0, -0.5, 0]) }), {})));
    world.advance(400);
    const rest = placeOf(world);
    expect(rest[1]).toBeGreaterThan(0);
    expect(rest[1]).toBeLessThan(0.001);
    for (let step = 401; step < 500; step++) {
      world.advance(step);
      expect(placeOf(world)).toEqual(rest);
      expect(speedOf(world)[1]).toBe(0);
    }
  });

  it('rubs: on a slope steeper than its friction holds, particles slide; on a gentler one they stay', () => {
    const slope = (degrees: number, friction: number) => {
      const surface = set(newSurface('ground', { place: inWorld([0, 0, 0], [0, 0, degrees]) }), {
        friction,
        act: 'slide',
      });
      const world = worldOf(falling([0, 0.01, 0], surface));
      world.advance(120);
      return Math.hypot(...placeOf(world));
    };
    const rad = (degrees: number) => (degrees * Math.PI) / 180;
    expect(slope(20, 60)).toBeLessThan(0.02);
    // g (sin − µ cos) t² / 2 along the slope.
    const pull = 9.81 * (Math.sin(rad(40)) - 0.3 * Math.cos(rad(40)));
    expect(slope(40, 30) / ((pull * 4) / 2)).toBeCloseTo(1, 1);
  });

  it('holds what sticks: it goes with a turning box, on the spot where it met it', () => {
    const surface = set(newSurface('box', { place: turning([0, 0, 0], 90) }), { act: 'stick' });
    const world = worldOf(falling([0.2, 1, 0], surface));
    world.advance(60);
    const [x, y] = placeOf(world);
    const local = (time: number, [px, py]: readonly number[]) => {
      const a = (-90 * time * Math.PI) / 180;
      return [px! * Math.cos(a) - py! * Math.sin(a), px! * Math.sin(a) + py! * Math.cos(a)];
    };
    const spot = local(1, [x, y]);
    world.advance(105);
    const later = local(105 / 60, placeOf(world));
    expect(Math.hypot(later[0]! - spot[0]!, later[1]! - spot[1]!)).toBeLessThan(0.0005);
    expect(Math.max(Math.abs(spot[0]!), Math.abs(spot[1]!))).toBeCloseTo(0.5, 3);
  });

  it('holds what sticks to skin on its spot as the skin bends, and nothing else carries it any more', () => {
    const effect = falling(
      [0.6, 0.85, 0],
      set(newSurface('thing', { thing: 'figure' }), { act: 'stick' }),
      (layer, own) => {
        own.stage.things = onStage('sway');
        layer.forces = collectionOf([]);
        layer.settings['motion.launch'].base = { kind: 'fixed', value: 'axis' };
        layer.settings['motion.axis'].base = { kind: 'fixed', value: [-1, 0, 0] };
        setNumber(layer, 'motion.speed', 3);
        setNumber(layer, 'motion.ride', 100);
      },
    );
    const world = worldOf(effect);
    const thing = () => {
      const { spot, spotSecond, spotThird } = world.population('motes')!;
      const triangle = new Float32Array(spot.slice(0, 1).buffer)[0]!;
      const frame = new Float64Array(32);
      return { triangle, second: spotSecond[0]!, third: spotThird[0]!, frame };
    };
    world.advance(30);
    expect(world.population('motes')!.isStuck(0)).toBe(true);
    const { triangle, second, third } = thing();
    const places: Vector[] = [];
    for (const step of [40, 50, 60, 70]) {
      world.advance(step);
      const rig = RIGS.get(TUBE)!;
      const matrices = world.skinOf('figure')!;
      const [a, b, c] = [0, 1, 2].map((k) => skinnedVertex(rig, matrices, rig.mesh.indices[triangle * 3 + k]!));
      const there = a!.map((x, k) => x * (1 - second - third) + b![k]! * second + c![k]! * third);
      expect(Math.hypot(...there.map((x, k) => x - placeOf(world)[k]!))).toBeLessThan(0.0005);
      places.push(placeOf(world));
    }
    expect(Math.hypot(places[0]![0] - places[2]![0], places[0]![1] - places[2]![1])).toBeGreaterThan(0.05);
  });

  it('ends what dies on it, in the step in which it meets it', () => {
    const world = worldOf(falling([0, 1, 0], set(newSurface('ground', { place: inWorld() }), { act: 'die' })));
    // √(2 · 1 m / 9.81 m/s²) = 0.4515 s, in step 28.
    world.advance(27);
    expect(world.living).toBe(1);
    world.advance(28);
    expect(world.living).toBe(0);
    expect(world.hits('motes')!.count).toBe(1);
    expect(world.hits('motes')!.strength[0]).toBeCloseTo(Math.sqrt(2 * 9.81), 1);
    expect(world.hits('motes')!.share[0]).toBeCloseTo(0.4515 * 60 - 27, 1);
  });

  it('keeps particles at its distance, wherever they were', () => {
    const effect = falling(
      [0, 0, 0],
      set(newSurface('thing', { thing: 'figure' }), { act: 'keep', offset: 0.03 }),
      (layer, own) => {
        own.stage.things = onStage('');
        layer.source = { kind: 'sphere', place: inWorld([0, 0.5, 0]) };
        setNumber(layer, 'births.standing', 200);
        layer.settings['motion.launch'].base = { kind: 'fixed', value: 'any' };
        setNumber(layer, 'motion.speed', 0.5);
        layer.forces = collectionOf([]);
      },
    );
    const world = worldOf(effect);
    world.advance(30);
    const { position } = world.population('motes')!;
    for (let i = 0; i < 200; i++) {
      const [x, y, z] = [position[0][i]!, position[1][i]!, position[2][i]!];
      if (y > 0.05 && y < 0.95) expect(Math.hypot(x, z)).toBeGreaterThan(0.22);
      if (y > 0.05 && y < 0.95) expect(Math.hypot(x, z)).toBeLessThan(0.233);
    }
  });

  it('sweeps up what it grows into, and does not swallow it', () => {
    const grows = set(newSurface('sphere', { place: inWorld([0, 1, 0]) }), { bounce: 0, radius: 1 });
    (grows.settings as unknown as Record<string, NumberSetting>)['radius']!.shapers = collectionOf([
      [
        'grow',
        {
          ...curveShaper([
            [0, 0.1],
            [1, 1],
          ]),
          reads: { kind: 'effectTime' },
        },
      ],
    ]);
    const effect = falling([0, 0, 0], grows, (layer, own) => {
      layer.source = { kind: 'sphere', place: inWorld([0, 1, 0]) };
      setNumber(layer, 'source.radius', 0.4);
      setNumber(layer, 'births.standing', 300);
      layer.forces = collectionOf([]);
      own.stretches = { opening: 2, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
    });
    const world = worldOf(effect);
    for (const step of [30, 60, 90, 118]) {
      world.advance(step);
      const radius = 0.1 + (0.9 * step) / 120;
      const { position, count } = world.population('motes')!;
      for (let i = 0; i < count; i++)
        expect(Math.hypot(position[0][i]!, position[1][i]! - 1, position[2][i]!)).toBeGreaterThan(
          Math.max(0.39, radius - 1e-3),
        );
    }
  });

  it('keeps a mesh that grows over the effect’s time: what lies on it is lifted', () => {
    const grows = set(newSurface('mesh', { place: inWorld(), asset: BOX, name: 'block' }), { tall: 2 });
    (grows.settings as unknown as Record<string, NumberSetting>)['tall']!.shapers = collectionOf([
      [
        'grow',
        {
          ...curveShaper([
            [0, 0.2],
            [1, 1],
          ]),
          reads: { kind: 'effectTime' },
        },
      ],
    ]);
    const effect = falling([0.1, 0.6, 0.2], grows, (_, own) => {
      own.stretches = { opening: 2, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
    });
    const world = worldOf(effect);
    for (const step of [60, 90, 110]) {
      world.advance(step);
      // Half of 2 m × (0.2 + 0.8 t).
      expect(placeOf(world)[1]).toBeCloseTo(0.2 + (0.8 * step) / 120, 2);
    }
  });

  it('is met only by the layers and the share of particles it is for, and not when muted', () => {
    const through = (change: (surface: Surface, effect: Effect) => void) => {
      const ground = newSurface('ground', { place: inWorld() });
      const effect = falling([0, 1, 0], ground, (layer, own) => {
        setNumber(layer, 'births.standing', 400);
        change(ground, own);
      });
      const world = worldOf(effect);
      world.advance(60);
      const { position } = world.population('motes')!;
      return position[1].subarray(0, 400).filter((y) => y < 0).length;
    };
    expect(through(() => undefined)).toBe(0);
    expect(through((surface) => (surface.muted = true))).toBe(400);
    expect(
      through((surface, { layers }) => {
        layers.order.push('other');
        layers.byId['other'] = { ...layers.byId['motes']!, salt: 9 };
        surface.layers.push('other');
      }),
    ).toBe(400);
    const some = through((surface) => set(surface, { share: 30 }));
    expect(some).toBeGreaterThan(240);
    expect(some).toBeLessThan(320);
  });

  it('can be met from inside: a sphere holds a storm of sparks in', () => {
    const surface = set(newSurface('sphere', { place: inWorld([0, 1, 0]) }), {
      side: 'inside',
      bounce: 100,
      friction: 0,
      radius: 0.5,
    });
    const effect = falling([0, 1, 0], surface, (layer) => {
      setNumber(layer, 'births.standing', 0);
      layer.bursts = collectionOf([['b', burst('opening', 0, 500)]]);
      setNumber(layer, 'births.life', 10);
      layer.settings['motion.launch'].base = { kind: 'fixed', value: 'any' };
      setNumber(layer, 'motion.speed', [2, 30]);
      layer.forces = collectionOf([]);
    });
    const world = worldOf(effect);
    world.advance(200);
    const { position, velocity, count } = world.population('motes')!;
    expect(count).toBe(500);
    for (let i = 0; i < count; i++) {
      expect(Math.hypot(position[0][i]!, position[1][i]! - 1, position[2][i]!)).toBeLessThan(0.5);
      expect(Math.hypot(velocity[0][i]!, velocity[1][i]!, velocity[2][i]!)).toBeGreaterThan(1.99);
    }
  });

  it('is met at its distance', () => {
    for (const kind of ['ground', 'box', 'sphere'] as const) {
      const place = inWorld([0, kind === 'ground' ? 0 : -0.5, 0]);
      const world = worldOf(falling([0, 1, 0], set(newSurface(kind, { place }), { offset: 0.1, bounce: 0 })));
      world.advance(120);
      expect(placeOf(world)[1]).toBeCloseTo(0.1, 3);
    }
  });
});
