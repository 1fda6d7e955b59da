import { emptyCollection, listed, mapped } from '../settings/index.ts';
import { MOST_LIGHTS, TIERS, type Effect, type Layer, type Quality, type Step, type Tier } from './schema/index.ts';

/** All of it in the high tier; fewer of everything below. */
export const newQuality = (): Quality => ({
  shown: 'high',
  tiers: {
    low: { births: 35, keepsArea: true, lights: 1, joints: 50 },
    middle: { births: 65, keepsArea: true, lights: 3, joints: 75 },
    high: { births: 100, keepsArea: true, lights: MOST_LIGHTS, joints: 100 },
  },
  distances: emptyCollection(),
  bounds: null,
});

/** Whether a tier has what is there from another on. */
export const hasFrom = (tier: Tier, least: Tier): boolean => TIERS.indexOf(tier) >= TIERS.indexOf(least);

/** The share of a layer's own births that an effect keeps in the tier it is seen in, 0 to 1. */
export function keptShare({ shown, tiers }: Quality, { quality: { least, thins } }: Layer): number {
  if (!hasFrom(shown, least)) return 0;
  return thins ? tiers[shown].births / 100 : 1;
}

/** How many times larger a layer's particles are drawn for the area of those left out. */
export function sizeForKept({ shown, tiers }: Quality, { quality: { thins } }: Layer): number {
  const { births, keepsArea } = tiers[shown];
  return thins && keepsArea ? Math.sqrt(100 / births) : 1;
}

const known = new WeakMap<Effect, Effect>();

/** An effect with only those steps of looks, and layers that follow others, that the tier it is seen in has; the same document where that is all of them. */
export function atTier(effect: Effect): Effect {
  const before = known.get(effect);
  if (before) return before;
  const { shown } = effect.quality;
  const without = (step: Step): Step => (step.muted || hasFrom(shown, step.least) ? step : { ...step, muted: true });
  const seen = (layer: Layer): Layer => {
    const { look, population, quality } = layer;
    const isGone = population.kind === 'follows' && !hasFrom(shown, quality.least);
    const steps = look.kind === 'own' ? mapped(look.steps, without) : null;
    const kept = steps === null || look.kind !== 'own' || steps === look.steps ? look : { ...look, steps };
    const hidden = layer.hidden || isGone;
    return kept === look && hidden === layer.hidden ? layer : { ...layer, look: kept, hidden };
  };
  const layers = mapped(effect.layers, seen);
  const looks = mapped(effect.looks, (look) => {
    const steps = mapped(look.steps, without);
    return steps === look.steps ? look : { ...look, steps };
  });
  const result = layers === effect.layers && looks === effect.looks ? effect : { ...effect, layers, looks };
  known.set(effect, result);
  return result;
}

/** The lower of two tiers; "none" is below all. */
const lower = <T extends Tier | 'none'>(a: T, b: T): T =>
  ['none', ...TIERS].indexOf(a) <= ['none', ...TIERS].indexOf(b) ? a : b;

/** The tier that an effect is seen in at a distance, where it may be seen in `most` at best: that of the farthest step it is beyond. */
export function tierAt({ distances }: Quality, most: Tier, metres: number): Tier | 'none' {
  let [beyond, tier]: [number, Tier | 'none'] = [0, most];
  for (const { item } of listed(distances))
    if (metres > item.beyond && item.beyond > beyond) [beyond, tier] = [item.beyond, item.tier];
  return lower<Tier | 'none'>(tier, most);
}

/** An effect as it is seen in a tier. */
export const withTier = (effect: Effect, shown: Tier): Effect =>
  effect.quality.shown === shown ? effect : { ...effect, quality: { ...effect.quality, shown } };
