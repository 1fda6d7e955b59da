import { describe, expect, it } from 'vitest';
import {
  atEffect,
  burst,
  CHANNEL_SETTING,
  collectionOf,
  curveShaper,
  defaultSetting,
  inWorld,
  newEffect,
  newForce,
  newLayer,
  newLink,
  parseEffect,
  setNumber,
  structuredCopy,
  type Effect,
  type Layer,
  type NumberSetting,
  type Reads,
  type Shaper,
} from '../../document/index.ts';
import { kernelBytes } from '../../testing/kernelBytes.ts';
import { newFrame, RECORD_SIZE } from '../frames/frame.ts';
import { reachBetween } from '../world/reach.ts';
import { playAlone } from '../world/world.ts';

/** Multiplies by what is read, along a straight line from `low` at 0 to `high` at `most`. */
const by = (reads: Reads, low: number, high: number, most = 1): Shaper => {
  const shaper = curveShaper([
    [0, low],
    [1, high],
  ]);
  if (shaper.mapping.kind !== 'curve') throw new Error('a curve was made');
  const { keys } = shaper.mapping.curve;
  for (const id of keys.order) {
    const key = keys.byId[id]!;
    const slope = (high - low) / most;
    keys.byId[id] = { ...key, at: { ...key.at, value: key.at.value * most }, slopeIn: slope, slopeOut: slope };
  }
  return { ...shaper, reads };
};
const channel = (base: NumberSetting['base'], shaper?: Shaper): NumberSetting => ({
  ...defaultSetting(CHANNEL_SETTING),
  base,
  shapers: collectionOf(shaper ? [['s', shaper]] : []),
});
/** Ten motes flying apart from a point at a metre a second, a metre wide until something shapes that. */
function motes(shape: (layer: Layer, effect: Effect) => void): Effect {
  const effect = newEffect('Test', 5);
  effect.stretches = { opening: 1, hold: { kind: 'continuing', seconds: 2 }, closing: 1, preRoll: 0 };
  effect.channels = collectionOf([['heat', { name: 'heat' }]]);
  const layer = newLayer('Motes', 3);
  layer.source = { kind: 'point', place: inWorld([0, 1, 0]) };
  layer.settings['life.opacity'].shapers = collectionOf([]);
  setNumber(layer, 'births.rate', 0);
  setNumber(layer, 'births.life', 4);
  setNumber(layer, 'motion.speed', 1);
  setNumber(layer, 'life.size', 1);
  layer.bursts = collectionOf([['b', burst('opening', 0, 10)]]);
  layer.settings['motion.launch'].base.value = 'any';
  effect.layers = collectionOf([['motes', layer]]);
  shape(layer, effect);
  return parseEffect(effect);
}
const made = (effect: Effect) => playAlone(effect, new Map(), {}, { kernels: kernelBytes() });
/** The sizes of a layer's particles at a step. */
function sizes(effect: Effect, step: number, layer = 3): number[] {
  const world = made(effect);
  world.advance(step);
  const frame = newFrame(world);
  world.writeFrame(frame);
  const { start, count } = frame.layer(layer)!;
  return Array.from({ length: count }, (_, n) => frame.f32[frame.recordAt(start + n) + RECORD_SIZE]!);
}
const shapeSize = (layer: Layer, shaper: Shaper) =>
  (layer.settings['life.size'].shapers = collectionOf([['s', shaper]]));

describe('what shapes a setting', () => {
  it('is the metres that a particle has travelled', () => {
    const effect = motes((layer) => shapeSize(layer, by({ kind: 'distance' }, 0, 1, 2)));
    for (const size of sizes(effect, 60)) expect(size).toBeCloseTo(0.5, 2);
    // A curve is level beyond its end.
    for (const size of sizes(effect, 180)) expect(size).toBeCloseTo(1, 5);
  });

  it('is metres of the way, not of the distance between its ends: a particle that goes round goes far', () => {
    const effect = motes((layer) => {
      const orbit = newForce('orbit', inWorld([0, 1, 0]));
      if (orbit.kind === 'orbit') {
        orbit.settings.distance.base = { kind: 'fixed', value: 0.25 };
        orbit.settings.speed.base = { kind: 'fixed', value: 2 };
      }
      layer.forces = collectionOf([['o', orbit]]);
      shapeSize(layer, by({ kind: 'distance' }, 0, 1, 10));
    });
    // Two seconds at two metres a second round a quarter of a metre.
    for (const size of sizes(effect, 120)) expect(size).toBeGreaterThan(0.3);
  });

  it('is the place within the present stretch: it begins anew with each', () => {
    const effect = motes((layer) => shapeSize(layer, by({ kind: 'stretchTime' }, 0, 1)));
    expect(sizes(effect, 30)[0]).toBeCloseTo(0.5, 5);
    expect(sizes(effect, 59)[0]).toBeCloseTo(59 / 60, 5);
    // The hold lasts two seconds.
    expect(sizes(effect, 60 + 30)[0]).toBeCloseTo(0.25, 5);
    expect(sizes(effect, 60 + 90)[0]).toBeCloseTo(0.75, 5);
  });

  it('is a channel: what each particle carries, drawn for it and shaped over its age', () => {
    const effect = motes((layer) => {
      layer.channels = collectionOf([['heat', channel({ kind: 'spread', low: 0.2, high: 0.8 })]]);
      shapeSize(layer, by({ kind: 'channel', channel: 'heat' }, 0, 1));
    });
    const drawn = sizes(effect, 30);
    expect(Math.min(...drawn)).toBeGreaterThan(0.2);
    expect(Math.max(...drawn)).toBeLessThan(0.8);
    expect(new Set(drawn).size).toBe(10);
    const cooling = motes((layer) => {
      layer.channels = collectionOf([['heat', channel({ kind: 'fixed', value: 1 }, by({ kind: 'age' }, 1, 0))]]);
      shapeSize(layer, by({ kind: 'channel', channel: 'heat' }, 0, 1));
    });
    for (const size of sizes(cooling, 120)) expect(size).toBeCloseTo(0.5, 2);
  });

  it('may be felt by forces: the hotter rise the faster', () => {
    const effect = motes((layer) => {
      setNumber(layer, 'motion.speed', 0);
      layer.channels = collectionOf([['heat', channel({ kind: 'spread', low: 0, high: 1 })]]);
      const lift = newForce('gravity');
      if (lift.kind === 'gravity') {
        lift.settings.strength.base = { kind: 'fixed', value: -2 };
        lift.settings.strength.shapers = collectionOf([['s', by({ kind: 'channel', channel: 'heat' }, 0, 1)]]);
      }
      layer.forces = collectionOf([['g', lift]]);
      shapeSize(layer, by({ kind: 'channel', channel: 'heat' }, 0, 1));
    });
    const world = made(effect);
    world.advance(60);
    const heats = sizes(effect, 60);
    const { position } = world.population('motes')!;
    // Half of the acceleration, two metres a second squared times the heat, after one second.
    heats.forEach((heat, i) => expect(position[1][i]! - 1).toBeCloseTo(heat, 2));
  });

  it('is nothing where no layer carries the channel', () => {
    const effect = motes((layer) => shapeSize(layer, by({ kind: 'channel', channel: 'heat' }, 0.3, 1)));
    for (const size of sizes(effect, 10)) expect(size).toBeCloseTo(0.3, 5);
  });
});

describe('channels passed on by a link', () => {
  /** Motes of differing heat set off sparks when they die; the sparks would be cold by themselves. */
  const family = (share: number) =>
    motes((layer, effect) => {
      setNumber(layer, 'births.life', 0.5);
      layer.channels = collectionOf([['heat', channel({ kind: 'spread', low: 0.5, high: 1 })]]);
      const link = newLink('death', 'sparks', 9);
      link.settings.count.base = { kind: 'fixed', value: 2 };
      link.settings.channels.base = { kind: 'fixed', value: share };
      layer.links = collectionOf([['l', link]]);
      const sparks = newLayer('Sparks', 8);
      setNumber(sparks, 'births.rate', 0);
      setNumber(sparks, 'births.life', 2);
      setNumber(sparks, 'life.size', 1);
      sparks.channels = collectionOf([['heat', channel({ kind: 'fixed', value: 0 })]]);
      sparks.source = { kind: 'point', place: atEffect() };
      for (const each of [layer, sparks]) shapeSize(each, by({ kind: 'channel', channel: 'heat' }, 0, 1));
      effect.layers = collectionOf([
        ['motes', layer],
        ['sparks', sparks],
      ]);
    });

  it('are the parent’s own where all is passed, half way there at half, and the child’s at none', () => {
    const heats = sizes(family(100), 20).sort();
    const passed = sizes(family(100), 60, 8).sort();
    expect(passed).toHaveLength(20);
    heats.forEach((heat, n) => {
      expect(passed[2 * n]).toBeCloseTo(heat, 5);
      expect(passed[2 * n + 1]).toBeCloseTo(heat, 5);
    });
    const half = sizes(family(50), 60, 8).sort();
    heats.forEach((heat, n) => expect(half[2 * n]).toBeCloseTo(heat / 2, 5));
    expect(sizes(family(0), 60, 8).every((heat) => heat === 0)).toBe(true);
  });

  it('are state: kept through scrubbing back, and in the hash', () => {
    const effect = family(100);
    const world = made(effect);
    world.advance(70);
    const hash = world.hash();
    world.advance(33);
    world.advance(70);
    expect(world.hash()).toBe(hash);
    expect(world.population('sparks')!.begun).toHaveLength(1);
  });
});

describe('an edit of what shapes', () => {
  const withHeat = motes((layer) => {
    layer.channels = collectionOf([['heat', channel({ kind: 'fixed', value: 0.5 })]]);
    shapeSize(layer, by({ kind: 'channel', channel: 'heat' }, 0, 1));
  });
  const edited = (change: (layer: Layer) => void) => {
    const draft = structuredCopy(withHeat);
    change(draft.layers.byId['motes']!);
    return reachBetween(withHeat, draft).kind;
  };
  it('of a channel that only dresses simulates nothing; of one that a force reads it does', () => {
    const hotter = (layer: Layer) => (layer.channels.byId['heat']!.base = { kind: 'fixed', value: 1 });
    expect(edited(hotter)).toBe('dress');
    const felt = structuredCopy(withHeat);
    const force = newForce('gravity');
    if (force.kind === 'gravity')
      force.settings.strength.shapers = collectionOf([['s', by({ kind: 'channel', channel: 'heat' }, 0, 1)]]);
    felt.layers.byId['motes']!.forces = collectionOf([['g', force]]);
    const draft = structuredCopy(felt);
    hotter(draft.layers.byId['motes']!);
    expect(reachBetween(felt, draft).kind).toBe('state');
  });

  it('to distance computes the layer again, for the metres must be counted; and then shows them', () => {
    expect(edited((layer) => shapeSize(layer, by({ kind: 'distance' }, 0, 1, 2)))).toBe('state');
    const world = made(withHeat);
    world.advance(60);
    const draft = structuredCopy(withHeat);
    shapeSize(draft.layers.byId['motes']!, by({ kind: 'distance' }, 0, 1, 2));
    world.adopt(draft);
    world.advance(60);
    const whole = made(draft);
    whole.advance(60);
    expect(world.hash()).toBe(whole.hash());
  });
});
