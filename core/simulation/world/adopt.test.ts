import { describe, expect, it } from 'vitest';
import { collectionOf, setNumber, type Layer } from '../../document/index.ts';
import { effectOf } from '../../testing/effects.ts';
import { frameOf } from '../../testing/riders.ts';
import { playAlone } from './world.ts';

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
