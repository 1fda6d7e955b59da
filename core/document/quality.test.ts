import { describe, expect, it } from 'vitest';
import {
  atTier,
  collectionOf,
  keptShare,
  newEffect,
  newLayer,
  newStep,
  sizeForKept,
  tierAt,
  withTier,
  type Effect,
  type Step,
} from './index.ts';

const from = (least: Step['least'], kind: Step['kind'] = 'tint'): Step => ({ ...newStep(kind), least });

function thinned(): Effect {
  const effect = newEffect('Thin', 1);
  const motes = newLayer('Motes', 1);
  motes.look = {
    kind: 'own',
    steps: collectionOf([
      ['shape', from('low', 'drawn')],
      ['warp', from('middle', 'warp')],
      ['rim', from('high', 'rim')],
    ]),
  };
  const halo = newLayer('Halo', 2);
  halo.population = { kind: 'follows', layer: 'motes' };
  halo.quality.least = 'middle';
  const sparks = newLayer('Sparks', 3);
  sparks.quality = { least: 'high', thins: false };
  effect.layers = collectionOf([
    ['motes', motes],
    ['halo', halo],
    ['sparks', sparks],
  ]);
  effect.quality.tiers.low = { births: 25, keepsArea: true, lights: 1, joints: 50 };
  return effect;
}

describe('an effect in a tier', () => {
  it('has the steps of looks and the followers that the tier has', () => {
    const effect = thinned();
    const seen = (tier: Effect['quality']['shown']) => {
      const { layers } = atTier(withTier(effect, tier));
      const { look } = layers.byId['motes']!;
      const steps = look.kind === 'own' ? look.steps : null;
      return {
        steps: steps!.order.filter((id) => !steps!.byId[id]!.muted),
        followed: !layers.byId['halo']!.hidden,
      };
    };
    expect(seen('low')).toEqual({ steps: ['shape'], followed: false });
    expect(seen('middle')).toEqual({ steps: ['shape', 'warp'], followed: true });
    expect(seen('high')).toEqual({ steps: ['shape', 'warp', 'rim'], followed: true });
    expect(atTier(effect)).toBe(effect);
  });

  it('keeps a share of the births of layers that are thinned, larger by the area of those left out', () => {
    const effect = withTier(thinned(), 'low');
    const { motes, sparks } = effect.layers.byId as Record<string, Effect['layers']['byId'][string]>;
    expect([keptShare(effect.quality, motes!), sizeForKept(effect.quality, motes!)]).toEqual([0.25, 2]);
    expect(keptShare(effect.quality, sparks!)).toBe(0);
    const high = withTier(effect, 'high').quality;
    expect([keptShare(high, sparks!), sizeForKept(high, sparks!)]).toEqual([1, 1]);
  });
});

describe('a tier by distance', () => {
  const effect = thinned();
  effect.quality.distances = collectionOf([
    ['far', { beyond: 60, tier: 'none' }],
    ['near', { beyond: 10, tier: 'middle' }],
    ['mid', { beyond: 25, tier: 'low' }],
  ]);
  it.each([
    [5, 'high', 'high'],
    [11, 'high', 'middle'],
    [26, 'high', 'low'],
    [61, 'high', 'none'],
    [11, 'low', 'low'],
    [26, 'middle', 'low'],
  ] as const)('at %d m, where %s is the best there is, is %s', (metres, most, tier) =>
    expect(tierAt(effect.quality, most, metres)).toBe(tier),
  );
});
