import type { Effect } from '@jinx/core/document';
import { EffectClock } from '@jinx/core/simulation';
import { RAMP, SPEEDS, type StageView } from '@jinx/stage';

/** Views of the stage, in the order they are offered. */
export const VIEWS: readonly { readonly value: StageView; readonly text: string }[] = [
  { value: 'picture', text: 'as it is' },
  { value: 'grey', text: 'as grey values' },
  { value: 'silhouette', text: 'as silhouettes' },
  { value: 'particle', text: 'each particle apart' },
  { value: 'age', text: 'by age' },
  { value: 'speed', text: 'by speed' },
  { value: 'layer', text: 'by layer' },
];

/**
 * Seconds along the time sheet at which an effect is laid over itself as silhouettes: each stretch half way through and
 * at its end; a one-shot at even steps between its beginning and its end.
 */
export function keyInstants(stretches: Effect['stretches']): number[] {
  const { opening, hold, closing, length } = new EffectClock(stretches);
  if (hold === 0) return [0.1, 0.3, 0.5, 0.7, 0.9].map((share) => share * length);
  const ends = [
    [0, opening],
    [opening, hold],
    [opening + hold, closing],
  ] as const;
  return ends.flatMap(([from, seconds]) => (seconds > 0 ? [from + seconds / 2, from + seconds * 0.95] : []));
}

/** What the tones of a view mean: a scale of equal steps from low to high. */
export function scaleOf(view: StageView): { readonly text: string; readonly tone: string }[] {
  if (view === 'age') return RAMP.map((tone, n) => ({ tone, text: ['born', '', 'half', '', 'dies'][n]! }));
  if (view === 'speed') return RAMP.map((tone, n) => ({ tone, text: `${SPEEDS[n]}${n === 4 ? ' m/s' : ''}` }));
  return [];
}
