import { describe, expect, it } from 'vitest';
import { burst, collectionOf, newRibbon, setNumber, withTier } from '../../document/index.ts';
import { effectOf } from '../../testing/effects.ts';
import { frameOf } from '../../testing/riders.ts';
import { RECORD_SIZE } from './frame.ts';
import { playAlone } from '../world/world.ts';
import { born } from '../../testing/births.ts';

describe('a share of births that is kept', () => {
  it('keeps a part of the same particles', () => {
    const at = (share: number) => {
      const effect = effectOf((layer) => {
        setNumber(layer, 'births.rate', 600);
        setNumber(layer, 'births.life', 5);
      });
      effect.quality.tiers.high.births = share;
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

  it('never leaves out what comes alone: the first of what stands, and of each burst', () => {
    const effect = effectOf((layer) => {
      setNumber(layer, 'births.rate', 0);
      setNumber(layer, 'births.standing', 1);
      layer.bursts = collectionOf([['toll', { ...burst('hold', 0, 1), times: 5, every: 0.1 }]]);
    });
    effect.quality.tiers.high.births = 1;
    const world = playAlone(effect, new Map());
    world.advance(40);
    expect(world.population('motes')!.born).toBe(6);
  });

  it('draws those it keeps larger, so that they cover as much; or as large, when told to', () => {
    const covered = (share: number, keepsArea: boolean) => {
      const effect = effectOf((layer) => {
        setNumber(layer, 'births.rate', 2000);
        setNumber(layer, 'births.life', 5);
        setNumber(layer, 'life.size', [0.05, 0.15]);
      });
      Object.assign(effect.quality.tiers.high, { births: share, keepsArea });
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

describe('a tier without a layer', () => {
  it('bears nothing of it, by its own source or by links, and goes on with what lives when the tier changes', () => {
    const effect = effectOf((layer) => {
      setNumber(layer, 'births.rate', 60);
      setNumber(layer, 'births.life', 1);
      layer.quality.least = 'middle';
    });
    const world = playAlone(withTier(effect, 'low'), new Map());
    world.advance(60);
    expect(world.living).toBe(0);
    const whole = playAlone(effect, new Map());
    whole.advance(60);
    const { living } = whole;
    expect(living).toBeGreaterThan(55);
    expect(whole.adopt(withTier(effect, 'low'), true)).toBe(true);
    whole.advance(90);
    expect(whole.living).toBeGreaterThan(living / 3);
    expect(whole.living).toBeLessThan((living * 2) / 3);
    whole.advance(130);
    expect(whole.living).toBe(0);
  });
});

describe('joints of ribbons in a lower tier', () => {
  it('are laid further apart', () => {
    const joints = (share: number) => {
      const effect = effectOf((layer) => {
        setNumber(layer, 'births.rate', 4);
        setNumber(layer, 'births.life', 2);
        setNumber(layer, 'motion.speed', 2);
        layer.drawn = newRibbon('trail');
      });
      effect.quality.tiers.high.joints = share;
      const world = playAlone(effect, new Map());
      world.advance(90);
      return frameOf(world).layer(1234)!.jointCount;
    };
    expect(joints(50)).toBeLessThan(joints(100) * 0.6);
    expect(joints(50)).toBeGreaterThan(joints(100) * 0.4);
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
