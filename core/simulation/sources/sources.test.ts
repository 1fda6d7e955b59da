import { describe, expect, it } from 'vitest';
import {
  atBone,
  atEffect,
  burst,
  collectionOf,
  newLayer,
  setNumber,
  withItem,
  type Effect,
  type Layer,
  type Vector,
} from '../../document/index.ts';
import { effectOf, onStage, TUBE } from '../../testing/effects.ts';
import { frameOf } from '../../testing/riders.ts';
import { bendingTube, closedBox } from '../../testing/rigs.ts';
import type { Rig } from '../../geometry/index.ts';
import { Frame, RECORD_COLOUR, RECORD_SIZE, frameBytes, NO_SIZES } from '../frames/frame.ts';
import { FrameReader, FrameWriter, tripleBuffer, tripleBufferBytes } from '../frames/tripleBuffer.ts';
import { playAlone } from '../world/world.ts';
import { Instance } from '../world/instance.ts';

const SIZES = { ...NO_SIZES, records: 16 };
const ROOM = frameBytes(SIZES);
const rigs = new Map([[TUBE, bendingTube()]]);

/** Where a thousand particles are born at once, and how fast they leave. */
function born(
  shape: (layer: Layer, effect: Effect) => void,
  things: ReadonlyMap<string, Rig> = rigs,
): {
  places: number[][];
  speeds: number[][];
  world: Instance;
} {
  const effect = effectOf((layer, whole) => {
    setNumber(layer, 'births.rate', 0);
    setNumber(layer, 'births.life', 30);
    setNumber(layer, 'motion.speed', 0);
    layer.bursts = collectionOf([['all', burst('opening', 0, 1000)]]);
    shape(layer, whole);
  });
  const world = playAlone(effect, things);
  world.advance(1);
  const population = world.population('motes')!;
  const rows = (of: 'from' | 'velocity') =>
    Array.from({ length: population.count }, (_, i) => population[of].map((axis) => axis[i]!));
  return { places: rows('from'), speeds: rows('velocity'), world };
}
type Point = [number, number, number];
const size = (p: readonly number[]) => Math.hypot(...p);

describe('sources', () => {
  it('a sphere gives births on its surface, all round', () => {
    const { places } = born((layer) => {
      layer.source = { kind: 'sphere', place: atEffect() };
      setNumber(layer, 'source.radius', 2);
    });
    for (const p of places) expect(size(p)).toBeCloseTo(2, 5);
    for (const axis of [0, 1, 2])
      expect(Math.abs(places.reduce((sum, p) => sum + p[axis]!, 0) / 1000)).toBeLessThan(0.15);
  });

  it('a filled sphere has half its births in the inner half of its volume', () => {
    const { places } = born((layer) => {
      layer.source = { kind: 'sphere', place: atEffect() };
      setNumber(layer, 'source.radius', 2);
      layer.settings['source.region'].base = { kind: 'fixed', value: 'volume' };
    });
    const inner = places.filter((p) => size(p) < 2 * Math.cbrt(0.5)).length;
    expect(inner).toBeGreaterThan(440);
    expect(inner).toBeLessThan(560);
  });

  it('a disc lies flat, and half filled keeps its hole', () => {
    const { places } = born((layer) => {
      layer.settings['source.region'].base = { kind: 'fixed', value: 'volume' };
      layer.source = { kind: 'disc', place: atEffect([0, 1, 0]) };
      setNumber(layer, 'source.radius', 1);
      setNumber(layer, 'source.depth', 50);
    });
    for (const [x, y, z] of places as [number, number, number][]) {
      expect(y).toBeCloseTo(1, 6);
      expect(Math.hypot(x, z)).toBeGreaterThan(0.4999);
      expect(Math.hypot(x, z)).toBeLessThan(1.0001);
    }
  });

  it('a point lets particles leave in every direction at the speed it is given', () => {
    const { speeds } = born((layer) => {
      layer.source = { kind: 'point', place: atEffect() };
      setNumber(layer, 'motion.speed', [2, 4]);
    });
    for (const v of speeds) {
      expect(size(v)).toBeGreaterThan(1.999);
      expect(size(v)).toBeLessThan(4.001);
    }
    expect(Math.abs(speeds.reduce((sum, v) => sum + v[1]!, 0) / 1000)).toBeLessThan(0.2);
  });

  it('an axis launch keeps within its opening angle', () => {
    const { speeds } = born((layer) => {
      layer.source = { kind: 'point', place: atEffect() };
      setNumber(layer, 'motion.speed', 3);
      setNumber(layer, 'motion.opening', 30);
      layer.settings['motion.launch'].base = { kind: 'fixed', value: 'axis' };
      layer.settings['motion.axis'].base = { kind: 'fixed', value: [1, 0, 0] };
    });
    const angles = speeds.map((v) => (Math.acos(v[0]! / size(v)) * 180) / Math.PI);
    expect(Math.max(...angles)).toBeLessThan(30.01);
    expect(Math.max(...angles)).toBeGreaterThan(28);
  });

  it('skin lets particles leave along its normal', () => {
    const { places, speeds } = born((layer, effect) => {
      layer.source = { kind: 'mesh', thing: 'figure', bones: ['low'] };
      setNumber(layer, 'motion.speed', 1);
      effect.stage.things = onStage('');
    });
    places.forEach(([x, , z], i) => expect(x! * speeds[i]![0]! + z! * speeds[i]![2]!).toBeGreaterThan(0.15));
  });

  it('hand on their own speed when told to', () => {
    const shape = (kept: number) =>
      born((layer, effect) => {
        layer.source = { kind: 'point', place: atEffect() };
        setNumber(layer, 'motion.inherit', kept);
        effect.stage.carrier = { kind: 'circle', radius: 1, speed: 6 };
      }).speeds;
    for (const v of shape(100)) expect(size(v)).toBeCloseTo(6, 2);
    for (const v of shape(50)) expect(size(v)).toBeCloseTo(3, 2);
    for (const v of shape(0)) expect(size(v)).toBe(0);
  });

  it.each<[string, (layer: Layer) => void]>([
    ['a missing figure', (layer) => (layer.source = { kind: 'mesh', thing: 'gone', bones: [] })],
    ['a missing bone', (layer) => (layer.source = { kind: 'point', place: atBone('figure', 'tail') })],
  ])('with %s give no births and do no harm', (_name, shape) => expect(born(shape).places).toHaveLength(0));
});

/** Sets a choice of a layer. */
const choose = (
  layer: Layer,
  name: 'source.region' | 'source.order' | 'source.along' | 'motion.launch',
  value: string,
) => (layer.settings[name].base = { kind: 'fixed', value });
const vector = (
  layer: Layer,
  name: 'source.size' | 'source.stretch' | 'motion.axis' | 'motion.velocity',
  value: Vector,
) => (layer.settings[name].base = { kind: 'fixed', value });

describe('shapes', () => {
  const on = (
    kind: 'line' | 'ring' | 'disc' | 'box' | 'sphere' | 'cylinder' | 'cone',
    shape: (layer: Layer) => void,
  ) =>
    born((layer) => {
      layer.source = { kind, place: atEffect() };
      setNumber(layer, 'source.radius', 1);
      setNumber(layer, 'motion.speed', 1);
      shape(layer);
    });
  const halves = (places: number[][], axis: number, middle = 0) =>
    places.filter((p) => p[axis]! > middle).length / 1000;

  it('a line bears along its length, outward from it', () => {
    const { places, speeds } = on('line', (layer) => setNumber(layer, 'source.length', 3));
    for (const [x, y, z] of places as Point[]) {
      expect(Math.hypot(x, z)).toBeLessThan(1e-6);
      expect(Math.abs(y)).toBeLessThan(1.5);
    }
    expect(Math.max(...places.map((p) => p[1]!))).toBeGreaterThan(1.4);
    for (const v of speeds) expect(Math.abs(v[1]!)).toBeLessThan(1e-6);
  });

  it('a thick ring bears on its tube or inside it, leaving the tube outward', () => {
    const tube = (p: number[]) => Math.hypot(Math.hypot(p[0]!, p[2]!) - 1, p[1]!);
    const surface = on('ring', (layer) => setNumber(layer, 'source.thickness', 0.2));
    for (const p of surface.places) expect(tube(p)).toBeCloseTo(0.2, 5);
    surface.places.forEach((p, i) => {
      const step = p.map((x, axis) => x + surface.speeds[i]![axis]! * 0.01);
      expect(tube(step)).toBeGreaterThan(tube(p));
    });
    const inside = on(
      'ring',
      (layer) => (setNumber(layer, 'source.thickness', 0.2), choose(layer, 'source.region', 'volume')),
    );
    expect(inside.places.filter((p) => tube(p) < 0.2 * Math.sqrt(0.5)).length / 1000).toBeCloseTo(0.5, 1);
  });

  it('a disc bears evenly over its area, and at its rim only when told to', () => {
    const whole = on('disc', () => undefined);
    expect(whole.places.filter((p) => size(p) < Math.sqrt(0.5)).length / 1000).toBeCloseTo(0.5, 1);
    const rim = on('disc', (layer) => choose(layer, 'source.region', 'edge'));
    for (const p of rim.places) expect(size(p)).toBeCloseTo(1, 5);
  });

  it('a box bears on its faces by their area, along its edges, or inside', () => {
    const box = (region: string) =>
      on('box', (layer) => (vector(layer, 'source.size', [2, 1, 0.5]), choose(layer, 'source.region', region)));
    const half = [1, 0.5, 0.25];
    const borders = (p: number[]) => p.filter((x, axis) => Math.abs(Math.abs(x) - half[axis]!) < 1e-6).length;
    const { places, speeds } = box('surface');
    for (const p of places) expect(borders(p)).toBeGreaterThanOrEqual(1);
    const wide = places.filter((p) => Math.abs(Math.abs(p[2]!) - 0.25) < 1e-6).length / 1000;
    expect(wide).toBeCloseTo(2 / (2 + 1 + 0.5), 1);
    speeds.forEach((v, i) => expect(v.reduce((sum, x, axis) => sum + x * places[i]![axis]!, 0)).toBeGreaterThan(0));
    for (const p of box('edge').places) expect(borders(p)).toBeGreaterThanOrEqual(2);
    const inside = box('volume').places;
    for (const p of inside) p.forEach((x, axis) => expect(Math.abs(x)).toBeLessThanOrEqual(half[axis]! + 1e-6));
    for (const axis of [0, 1, 2])
      expect(inside.filter((p) => Math.abs(p[axis]!) < half[axis]! / 2).length / 1000).toBeCloseTo(0.5, 1);
  });

  it('a box with a side of zero is a flat sheet', () => {
    const { places, speeds } = on('box', (layer) => vector(layer, 'source.size', [2, 0, 1]));
    for (const p of places) expect(p[1]).toBe(0);
    for (const v of speeds) expect(v[1]).toBeCloseTo(1, 5);
    expect(halves(places, 0)).toBeCloseTo(0.5, 1);
  });

  it('a part of a sphere is a dome, and a part of the turn a slice', () => {
    const dome = on('sphere', (layer) => setNumber(layer, 'source.rise', 90));
    for (const p of dome.places) expect(p[1]).toBeGreaterThan(-1e-6);
    const slice = on('sphere', (layer) => setNumber(layer, 'source.arc', 90));
    for (const [x, , z] of slice.places as Point[]) expect(Math.min(x, z)).toBeGreaterThan(-1e-6);
    const rim = on(
      'sphere',
      (layer) => (setNumber(layer, 'source.rise', 60), choose(layer, 'source.region', 'edge')),
    );
    for (const p of rim.places) expect(p[1]).toBeCloseTo(0.5, 5);
  });

  it('a cylinder bears on its side or its two rims', () => {
    const side = on('cylinder', (layer) => setNumber(layer, 'source.length', 4));
    for (const [x, , z] of side.places as Point[]) expect(Math.hypot(x, z)).toBeCloseTo(1, 5);
    expect(halves(side.places, 1, 1)).toBeCloseTo(0.25, 1);
    const rims = on(
      'cylinder',
      (layer) => (setNumber(layer, 'source.length', 4), choose(layer, 'source.region', 'edge')),
    );
    for (const p of rims.places) expect(Math.abs(p[1]!)).toBeCloseTo(2, 5);
  });

  it('a cone leans by its angle, and is parallel at none', () => {
    const cone = (angle: number) =>
      on('cone', (layer) => (setNumber(layer, 'source.angle', angle), setNumber(layer, 'source.length', 0)));
    for (const v of cone(0).speeds) expect(v[1]).toBeCloseTo(1, 5);
    const leaning = cone(30);
    leaning.speeds.forEach((v, i) => {
      const expected = (30 * size(leaning.places[i]!)) / 1;
      expect((Math.acos(Math.min(1, v[1]!)) * 180) / Math.PI).toBeCloseTo(expected, 2);
    });
    const long = on('cone', (layer) => (setNumber(layer, 'source.angle', 45), setNumber(layer, 'source.length', 1)));
    for (const [x, y, z] of long.places as Point[]) expect(Math.hypot(x, z)).toBeCloseTo(1 + y, 4);
  });

  it('are turned by their place and stretched along their own axes', () => {
    const { places } = born((layer) => {
      layer.source = { kind: 'ring', place: atEffect([0, 2, 0], [90, 0, 0]) };
      setNumber(layer, 'source.radius', 1);
      vector(layer, 'source.stretch', [3, 1, 1]);
    });
    for (const [x, y, z] of places as Point[]) {
      expect(z).toBeCloseTo(0, 5);
      expect((x / 3) ** 2 + (y - 2) ** 2).toBeCloseTo(1, 4);
    }
  });
});

describe('a drawn path', () => {
  const path = (shape: (layer: Layer) => void) =>
    born((layer) => {
      const points: Vector[] = [
        [-1, 0, 0],
        [0, 1, 0],
        [1, 0, 0],
        [2, 1, 0],
      ];
      layer.source = { kind: 'path', place: atEffect(), points, closed: false };
      shape(layer);
    }).places;

  it('is walked in order, by even steps of its length, through its points', () => {
    const places = path((layer) => (choose(layer, 'source.order', 'walking'), setNumber(layer, 'source.walk', 200)));
    const steps = places.slice(1, 200).map((p, i) => Math.hypot(...p.map((x, axis) => x - places[i]![axis]!)));
    expect(Math.max(...steps) / Math.min(...steps)).toBeLessThan(1.05);
    for (const point of [
      [0, 1, 0],
      [1, 0, 0],
    ])
      expect(Math.min(...places.map((p) => Math.hypot(...p.map((x, axis) => x - point[axis]!))))).toBeLessThan(0.02);
    places.slice(200, 400).forEach((p, i) => expect(p).toEqual(places[i]));
  });

  it('evenly spread keeps the same places for a smaller count', () => {
    const places = path((layer) => choose(layer, 'source.order', 'even'));
    const gaps = (count: number) => {
      const along = places
        .slice(0, count)
        .map((p) => p[0]!)
        .sort((a, b) => a - b);
      return along.slice(1).map((x, i) => x - along[i]!);
    };
    for (const count of [13, 55, 233]) expect(Math.max(...gaps(count))).toBeLessThan(3 * (3 / count));
  });
});

describe('a mesh on the stage', () => {
  const tube = rigs.get(TUBE)!;
  const on = (region: string, shape: (layer: Layer, effect: Effect) => void = () => undefined) =>
    born((layer, effect) => {
      layer.source = { kind: 'mesh', thing: 'figure', bones: [] };
      choose(layer, 'source.region', region);
      effect.stage.things = onStage('');
      shape(layer, effect);
    });

  it('bears at its vertices, all of them', () => {
    const { places } = on('vertices');
    const seen = new Set(places.map((p) => p.map((x) => x.toFixed(4)).join()));
    const vertices = new Set<string>();
    for (let i = 0; i < tube.mesh.positions.length; i += 3)
      vertices.add([...tube.mesh.positions.slice(i, i + 3)].map((x) => x.toFixed(4)).join());
    for (const place of seen) expect(vertices).toContain(place);
    expect(seen.size).toBeGreaterThan(vertices.size * 0.9);
  });

  it('bears along its edges', () => {
    const { places } = on('edge');
    for (const [x, y, z] of places as Point[]) {
      const ring = Math.abs(y * 12 - Math.round(y * 12));
      const spoke = ((Math.atan2(-z, x) / (2 * Math.PI)) * 12 + 12) % 1;
      // On a ring, on an upright, or on the diagonal between them.
      const isOnDiagonal = Math.abs(((spoke + 1) % 1) - ((y * 12) % 1)) < 0.06;
      expect(ring < 1e-3 || Math.min(spoke, 1 - spoke) < 1e-3 || isOnDiagonal).toBe(true);
    }
  });

  it('bears inside only where it has an inside', () => {
    const inside = (rig: Rig) =>
      born(
        (layer, effect) => {
          layer.source = { kind: 'mesh', thing: 'figure', bones: [] };
          choose(layer, 'source.region', 'volume');
          effect.stage.things = onStage('');
        },
        new Map([[TUBE, rig]]),
      ).places;
    const box = closedBox();
    const sheet = { ...box, mesh: { ...box.mesh, indices: box.mesh.indices.slice(0, 6) } };
    expect(inside(sheet)).toHaveLength(0);
    const places = inside(box);
    expect(places.length).toBe(1000);
    const [low, high] = [places.map((p) => Math.min(...p)), places.map((p) => Math.max(...p))];
    expect(Math.min(...low)).toBeGreaterThan(-0.5001);
    expect(Math.max(...high)).toBeLessThan(0.5001);
    expect(places.filter((p) => Math.max(...p.map(Math.abs)) < 0.25).length / 1000).toBeCloseTo(0.125, 1);
  });

  it('is where it stands: moved, turned and scaled with it', () => {
    const { places } = on('surface', (_layer, effect) => {
      const thing = effect.stage.things.byId['figure']!;
      thing.at = [5, 0, 1];
      thing.scale = 2;
    });
    for (const [x, y, z] of places as Point[]) {
      expect(Math.hypot(x - 5, z - 1)).toBeLessThan(0.4001);
      expect(y).toBeGreaterThan(-1e-6);
    }
    expect(Math.max(...places.map((p) => p[1]!))).toBeGreaterThan(1.9);
  });

  it('lets particles begin with the colour of its texture there', () => {
    const texture = { width: 2, height: 1, rgba: Uint8Array.of(255, 0, 0, 255, 0, 0, 255, 255) };
    const painted = new Map([[TUBE, { ...tube, texture }]]);
    const { world, places } = born((layer, effect) => {
      layer.source = { kind: 'mesh', thing: 'figure', bones: [] };
      layer.settings['life.colour'].base = { kind: 'taken', from: 'source' };
      effect.stage.things = onStage('');
    }, painted);
    const frame = frameOf(world);
    let [reds, blues] = [0, 0];
    places.forEach(([x, , z], i) => {
      const u = (Math.atan2(-z!, x!) / (2 * Math.PI) + 1) % 1;
      const at = frame.recordAt(i) + RECORD_COLOUR;
      const [red, blue] = [frame.f32[at]!, frame.f32[at + 2]!];
      if (Math.abs(u - 0.25) < 0.1 && red > 0.75) reds++;
      if (Math.abs(u - 0.75) < 0.1 && blue > 0.75) blues++;
      if (Math.abs(u - 0.25) < 0.1) expect(red).toBeGreaterThan(blue);
    });
    expect(Math.min(reds, blues)).toBeGreaterThan(50);
  });

  it('stands for as many a square metre as it is told', () => {
    const { world } = born((layer, effect) => {
      layer.source = { kind: 'mesh', thing: 'figure', bones: [] };
      layer.bursts = collectionOf([]);
      setNumber(layer, 'births.perArea', 100);
      effect.stage.things = onStage('');
    });
    // A tube of radius 0.2 m and a metre tall, of twelve sides.
    expect(world.living).toBe(Math.floor(100 * 12 * 0.4 * Math.sin(Math.PI / 12) + 0.5));
  });
});

describe('bones', () => {
  const on = (along: string, bones: string[] = []) =>
    born((layer, effect) => {
      layer.source = { kind: 'bones', thing: 'figure', bones };
      choose(layer, 'source.along', along);
      effect.stage.things = onStage('');
    }).places;
  it('bear at their joints, along them, or between two of them', () => {
    for (const p of on('joints', ['high'])) p.forEach((x, axis) => expect(x).toBeCloseTo([0, 0.5, 0][axis]!, 5));
    expect(new Set(on('joints').map((p) => p[1]!.toFixed(2)))).toEqual(new Set(['0.00', '0.50']));
    for (const places of [on('along', ['low']), on('between', ['low', 'high'])]) {
      for (const p of places) expect(Math.abs(p[0]!) + Math.abs(p[2]!)).toBeLessThan(1e-6);
      expect(places.filter((p) => p[1]! < 0.25).length / 1000).toBeCloseTo(0.5, 1);
    }
  });
});

describe('launches', () => {
  const from = (launch: string, shape: (layer: Layer) => void = () => undefined) =>
    born((layer) => {
      layer.source = { kind: 'sphere', place: atEffect() };
      setNumber(layer, 'source.radius', 1);
      setNumber(layer, 'motion.speed', 2);
      choose(layer, 'motion.launch', launch);
      shape(layer);
    });
  const dotOf = (a: number[], b: number[]) => a.reduce((sum, x, axis) => sum + x * b[axis]!, 0);

  it('along the surface stay in it, and turn by the angle within it', () => {
    const plain = from('tangent');
    plain.speeds.forEach((v, i) => {
      expect(Math.abs(dotOf(v, plain.places[i]!))).toBeLessThan(1e-4);
      expect(Math.abs(v[1]!)).toBeLessThan(1e-4);
    });
    const turned = from('tangent', (layer) => setNumber(layer, 'motion.angle', 90));
    turned.speeds.forEach((v, i) => {
      expect(Math.abs(dotOf(v, turned.places[i]!))).toBeLessThan(1e-4);
      expect(Math.abs(dotOf(v, plain.speeds[i]!))).toBeLessThan(1e-3);
    });
    const within = from('within');
    within.speeds.forEach((v, i) => expect(Math.abs(dotOf(v, within.places[i]!))).toBeLessThan(1e-4));
  });

  it('toward a place go there, away when negative', () => {
    for (const speed of [2, -2]) {
      const { places, speeds } = from('toward', (layer) => {
        layer.aim = atEffect([0, 5, 0]);
        setNumber(layer, 'motion.speed', speed);
      });
      speeds.forEach((v, i) => {
        const way = places[i]!.map((x, axis) => [0, 5, 0][axis]! - x);
        expect(dotOf(v, way) / size(v) / size(way)).toBeCloseTo(Math.sign(speed), 4);
      });
    }
  });

  it('round a place go round its axis', () => {
    const { places, speeds } = from('round', (layer) => (layer.aim = atEffect()));
    speeds.forEach((v, i) => {
      expect(Math.abs(dotOf(v, places[i]!))).toBeLessThan(1e-4);
      expect(Math.abs(v[1]!)).toBeLessThan(1e-5);
      // The same way round as a vortex of positive spin.
      expect(places[i]![2]! * v[0]! - places[i]![0]! * v[2]!).toBeGreaterThan(0);
    });
  });

  it('any way at all go every way', () => {
    const { speeds } = from('any');
    for (const axis of [0, 1, 2])
      expect(Math.abs(speeds.reduce((sum, v) => sum + v[axis]!, 0) / 1000)).toBeLessThan(0.2);
  });

  it('take a velocity beside along, on the axes of what they are born on', () => {
    const { speeds } = born((layer) => {
      layer.source = { kind: 'point', place: atEffect([0, 0, 0], [0, 90, 0]) };
      setNumber(layer, 'motion.speed', 0);
      vector(layer, 'motion.velocity', [3, 1, 0]);
    });
    for (const v of speeds) v.forEach((x, axis) => expect(x).toBeCloseTo([0, 1, -3][axis]!, 5));
  });
});

describe('a place with keys', () => {
  const keyed = (ease: 'smooth' | 'straight' | 'step') => {
    const place = atEffect();
    place.keys = collectionOf([
      ['b', { at: 1, offset: [4, 0, 0], turn: [0, 0, 0], ease }],
      ['a', { at: 0, offset: [0, 0, 0], turn: [0, 0, 0], ease }],
    ]);
    const effect = effectOf((layer) => {
      layer.source = { kind: 'point', place };
      setNumber(layer, 'births.rate', 240);
      setNumber(layer, 'births.life', 30);
      setNumber(layer, 'motion.speed', 0);
    });
    const world = playAlone(effect, new Map());
    world.advance(120);
    const { position, count } = world.population('motes')!;
    return Array.from({ length: count }, (_, i) => position[0][i]!);
  };

  it('moves through them in the effect’s time: straight, eased or by steps', () => {
    const straight = keyed('straight');
    straight.forEach((x, i) => expect(x).toBeCloseTo(Math.min(4, (4 * i) / 240), 4));
    const smooth = keyed('smooth');
    expect(smooth[120]!).toBeCloseTo(2, 2);
    expect(smooth[24]!).toBeLessThan(0.2);
    expect(new Set(keyed('step'))).toEqual(new Set([0, 4]));
  });
});

describe('a density for now', () => {
  it('keeps a part of the same particles', () => {
    const at = (share: number) => {
      const effect = effectOf((layer) => {
        setNumber(layer, 'births.rate', 600);
        setNumber(layer, 'births.life', 5);
      });
      effect.stage.density.share = share;
      const world = playAlone(effect, new Map());
      world.advance(90);
      const { key, count } = world.population('motes')!;
      return new Set(key.slice(0, count));
    };
    const [all, half, tenth] = [at(100), at(50), at(10)];
    expect(half.size / all.size).toBeCloseTo(0.5, 1);
    expect(tenth.size / all.size).toBeCloseTo(0.1, 1);
    for (const key of half) expect(all).toContain(key);
    for (const key of tenth) expect(half).toContain(key);
  });

  it('draws those it keeps larger, so that they cover as much; or as large, when told to', () => {
    const covered = (share: number, keepsArea: boolean) => {
      const effect = effectOf((layer) => {
        setNumber(layer, 'births.rate', 2000);
        setNumber(layer, 'births.life', 5);
        setNumber(layer, 'life.size', [0.05, 0.15]);
      });
      effect.stage.density = { share, keepsArea };
      const world = playAlone(effect, new Map());
      world.advance(60);
      const frame = frameOf(world);
      let area = 0;
      for (let n = 0; n < frame.particles; n++) area += frame.f32[frame.recordAt(n) + RECORD_SIZE]! ** 2;
      return area;
    };
    const all = covered(100, true);
    for (const share of [50, 20]) {
      expect(covered(share, true) / all).toBeGreaterThan(0.9);
      expect(covered(share, true) / all).toBeLessThan(1.1);
      expect(covered(share, false) / all).toBeLessThan((share / 100) * 1.15);
    }
  });
});

describe('a layer that follows another', () => {
  it('shows the same particles in its own dress', () => {
    const { world } = born((layer, effect) => {
      const glow = structuredClone(layer);
      glow.salt = 99;
      glow.population = { kind: 'follows', layer: 'motes' };
      setNumber(glow, 'life.size', 0.5);
      effect.layers = collectionOf([
        ['motes', layer],
        ['glow', glow],
      ]);
    });
    const frame = frameOf(world);
    const [glow, motes] = [frame.layer(99)!, frame.layer(1234)!];
    expect(glow.count).toBe(1000);
    expect(motes.count).toBe(1000);
    for (let i = 0; i < 1000; i += 50)
      expect(frame.drawn(glow.start + i, 1)).toEqual(frame.drawn(motes.start + i, 1));
    expect(world.living).toBe(1000);
  });
});

describe('a layer born on the particles of another', () => {
  it('counts the births for which none lived, also after going back and on again', () => {
    const effect = effectOf((layer, whole) => {
      setNumber(layer, 'births.rate', 0);
      setNumber(layer, 'births.life', 0.5);
      layer.bursts = collectionOf([['b', burst('opening', 0, 20)]]);
      const buds = newLayer('Buds', 8);
      buds.source = { kind: 'particles', layer: 'motes' };
      setNumber(buds, 'births.rate', 60);
      whole.layers = withItem(whole.layers, 'buds', buds);
    });
    const world = playAlone(effect, new Map());
    const counts = () => world.counts().find(({ salt }) => salt === 8)!;
    world.advance(29);
    expect(counts()).toMatchObject({ lost: 0, refused: 0 });
    world.advance(90);
    const { born, lost } = counts();
    expect([born + lost, lost > 50]).toEqual([90, true]);
    world.advance(40);
    world.advance(90);
    expect(counts()).toMatchObject({ born, lost });
  });
});

describe('a document taken over in mid-run', () => {
  const effect = effectOf((layer) => setNumber(layer, 'births.rate', 100));
  const faster = structuredClone(effect);
  setNumber(faster.layers.byId['motes']!, 'motion.speed', 9);

  it('acts from the next step on, and has no hash until it is computed from zero', () => {
    const world = playAlone(effect, new Map());
    world.advance(50);
    expect(world.adopt(faster, true)).toBe(true);
    expect(world.hash()).toBeNull();
    world.advance(80);
    world.advance(0);
    world.advance(80);
    const fresh = playAlone(faster, new Map());
    fresh.advance(80);
    expect(world.hash()).toBe(fresh.hash());
  });

  it('is refused, and changes nothing, when it needs another world', () => {
    const world = playAlone(effect, new Map());
    world.advance(50);
    const before = world.hash();
    const wider = structuredClone(effect);
    setNumber(wider.layers.byId['motes']!, 'births.cap', 77);
    const more = structuredClone(effect);
    more.layers = collectionOf([
      ...Object.entries(more.layers.byId),
      ['new', { ...more.layers.byId['motes']!, salt: 5 }],
    ]);
    for (const other of [wider, more]) expect(world.adopt(other)).toBe(false);
    expect(world.hash()).toBe(before);
  });

  it('that changes only dress keeps the run exact, and every place where it was', () => {
    const world = playAlone(effect, new Map());
    world.advance(50);
    const larger = structuredClone(effect);
    setNumber(larger.layers.byId['motes']!, 'life.size', 3);
    const place = frameOf(world).drawn(5, 1);
    world.adopt(larger);
    expect(world.isExact).toBe(true);
    expect(frameOf(world).drawn(5, 1)).toEqual(place);
    const fresh = playAlone(larger, new Map());
    fresh.advance(50);
    expect(world.hash()).toBe(fresh.hash());
  });

  it('lets go at the very step it is told to, like a run that knew', () => {
    const held = structuredClone(effect);
    held.stretches = { opening: 0.2, hold: { kind: 'continuing', seconds: 1 }, closing: 0.5, preRoll: 0 };
    const live = playAlone(held, new Map());
    live.advance(70);
    live.letGo();
    live.advance(95);
    const known = playAlone(held, new Map(), { letGoStep: 70 });
    known.advance(95);
    expect(live.hash()).toBe(known.hash());
  });
});

describe('a budget', () => {
  it('that is raised makes room in another world, with the same first particles', () => {
    const effect = effectOf((layer) => (setNumber(layer, 'births.rate', 6000), setNumber(layer, 'births.life', 9)));
    const living = [500, 5000].map((budget) => {
      const world = playAlone(effect, new Map(), {}, { budget });
      world.advance(60);
      return { count: world.living, keys: [...world.population('motes')!.key.subarray(0, 400)] };
    });
    expect(living[0]!.count).toBe(500);
    expect(living[1]!.count).toBe(5000);
    expect(living[0]!.keys).toEqual(living[1]!.keys);
  });
  it('no machine can give is refused with a sentence', () => {
    const effect = effectOf((layer) => setNumber(layer, 'births.cap', 1_000_000));
    const layers = Array.from({ length: 100 }, (_, i): [string, Layer] => [
      `l${i}`,
      { ...structuredClone(effect.layers.byId['motes']!), salt: i },
    ]);
    effect.layers = collectionOf(layers);
    expect(() => playAlone(effect, new Map(), {}, { budget: 4_000_000 })).toThrow(
      /lower the layers' caps or the budget/,
    );
  });
});

describe('the triple buffer', () => {
  it('gives the reader the newest whole frame, and none before the first', () => {
    const triple = tripleBuffer(new SharedArrayBuffer(tripleBufferBytes(ROOM)), ROOM);
    const writer = new FrameWriter(triple);
    const reader = new FrameReader(triple);
    expect(reader.newest()).toBeNull();
    for (const step of [1, 2, 3]) {
      writer.frame.u32[0] = step;
      writer.publish();
    }
    expect(reader.newest()!.step).toBe(3);
    expect(reader.newest()!.step).toBe(3);
  });

  it('never lets the writer touch what is being read', () => {
    const triple = tripleBuffer(new SharedArrayBuffer(tripleBufferBytes(ROOM)), ROOM);
    const writer = new FrameWriter(triple);
    const reader = new FrameReader(triple);
    let read: Frame | null = null;
    for (let step = 1; step < 200; step++) {
      expect(writer.frame).not.toBe(read);
      writer.frame.u32[0] = step;
      writer.publish();
      if (step % 3 === 0) {
        read = reader.newest();
        expect(read!.step).toBe(step);
      }
    }
  });
});
