import { describe, expect, it } from 'vitest';
import { collectionOf, setNumber } from '../../document/index.ts';
import { effectOf } from '../../testing/effects.ts';
import { frameOf } from '../../testing/riders.ts';
import { RECORD_SIZE } from './frame.ts';
import { playAlone } from '../world/world.ts';
import { born } from '../../testing/births.ts';

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
