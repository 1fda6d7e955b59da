import { describe, expect, it } from 'vitest';
import { atBone, atEffect, collectionOf, setNumber, type Effect, type Layer } from '../document/index.ts';
import { effectOf, onStage, TUBE } from '../testing/effects.ts';
import { frameOf } from '../testing/riders.ts';
import { bendingTube } from '../testing/rigs.ts';
import { Frame } from './frame.ts';
import { FrameReader, FrameWriter, tripleBuffer, tripleBufferBytes } from './tripleBuffer.ts';
import { World } from './world.ts';

const rigs = new Map([[TUBE, bendingTube()]]);

/** Where a thousand particles are born at once, and how fast they leave. */
function born(shape: (layer: Layer, effect: Effect) => void): {
  places: number[][];
  speeds: number[][];
  world: World;
} {
  const effect = effectOf((layer, whole) => {
    setNumber(layer, 'births.rate', 0);
    setNumber(layer, 'births.life', 30);
    setNumber(layer, 'motion.speed', 0);
    layer.bursts = collectionOf([['all', { stretch: 'opening', at: 0, count: 1000 }]]);
    shape(layer, whole);
  });
  const world = new World(effect, rigs);
  world.advance(1);
  const population = world.population('motes')!;
  const rows = (of: 'position' | 'velocity') =>
    Array.from({ length: population.count }, (_, i) => population[of].map((axis) => axis[i]!));
  return { places: rows('position'), speeds: rows('velocity'), world };
}
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

describe('a document taken over in mid-run', () => {
  const effect = effectOf((layer) => setNumber(layer, 'births.rate', 100));
  const faster = structuredClone(effect);
  setNumber(faster.layers.byId['motes']!, 'motion.speed', 9);

  it('acts from the next step on, and has no hash until it is computed from zero', () => {
    const world = new World(effect, new Map());
    world.advance(50);
    expect(world.adopt(faster)).toBe(true);
    expect(world.hash()).toBeNull();
    world.advance(80);
    world.restart();
    world.advance(80);
    const fresh = new World(faster, new Map());
    fresh.advance(80);
    expect(world.hash()).toBe(fresh.hash());
  });

  it('is refused, and changes nothing, when it needs another world', () => {
    const world = new World(effect, new Map());
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
    const world = new World(effect, new Map());
    world.advance(50);
    const larger = structuredClone(effect);
    setNumber(larger.layers.byId['motes']!, 'life.size', 3);
    const place = frameOf(world).drawn(5, 1);
    world.redress(larger);
    expect(world.isExact).toBe(true);
    expect(frameOf(world).drawn(5, 1)).toEqual(place);
    const fresh = new World(larger, new Map());
    fresh.advance(50);
    expect(world.hash()).toBe(fresh.hash());
  });

  it('lets go at the very step it is told to, like a run that knew', () => {
    const held = structuredClone(effect);
    held.stretches = { opening: 0.2, hold: { kind: 'continuing', seconds: 1 }, closing: 0.5 };
    const live = new World(held, new Map());
    live.advance(70);
    live.letGo();
    live.advance(95);
    const known = new World(held, new Map(), { letGoStep: 70 });
    known.advance(95);
    expect(live.hash()).toBe(known.hash());
  });
});

describe('a budget', () => {
  it('that is raised makes room in another world, with the same first particles', () => {
    const effect = effectOf((layer) => (setNumber(layer, 'births.rate', 6000), setNumber(layer, 'births.life', 9)));
    const living = [500, 5000].map((budget) => {
      const world = new World(effect, new Map(), {}, { budget });
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
    expect(() => new World(effect, new Map(), {}, { budget: 4_000_000 })).toThrow(
      /lower the layers' caps or the budget/,
    );
  });
});

describe('the triple buffer', () => {
  it('gives the reader the newest whole frame, and none before the first', () => {
    const triple = tripleBuffer(new SharedArrayBuffer(tripleBufferBytes(16)), 16);
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
    const triple = tripleBuffer(new SharedArrayBuffer(tripleBufferBytes(16)), 16);
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
