import {
  burst,
  listed,
  placedBursts,
  withItem,
  withoutItem,
  type Burst,
  type Effect,
  type Layer,
} from '@jinx/core/document';
import type { EffectClock } from '@jinx/core/simulation';

/** A moment of a layer as the time sheet shows it. */
export interface TimedMark {
  readonly id: string;
  readonly kind: 'burst' | 'hit';
  /** From the sheet's left end. */
  readonly seconds: number;
  readonly times: number;
  readonly every: number;
  /** How high it stands beside the largest. */
  readonly share: number;
  readonly isMuted: boolean;
  readonly words: string;
  /** When the signal comes from which it is counted, on the sheet; null where it is counted from its stretch. */
  readonly after: number | null;
}

/** The bursts of a layer, or its hits, on the time sheet. */
export function marksOf(layer: Layer, effect: Pick<Effect, 'signals'>, clock: EffectClock): TimedMark[] {
  if (layer.source.kind === 'hits')
    return listed(layer.source.hits).map(({ id, item }) => ({
      id,
      kind: 'hit',
      seconds: clock.startOf(item.stretch) + item.at,
      times: 1,
      every: 0,
      share: Math.min(1, 0.3 + item.strength / 143),
      isMuted: item.muted,
      words: `${item.muted ? 'Muted: a' : 'A'} hit of ${item.strength} %`,
      after: null,
    }));
  const bursts = placedBursts(listed(layer.bursts), effect.signals);
  const largest = Math.max(1, ...bursts.map(({ item }) => item.most));
  return bursts.map(({ id, item }) => ({
    id,
    kind: 'burst',
    seconds: clock.startOf(item.stretch) + item.at,
    times: Math.min(item.times, 200),
    every: item.every,
    share: 0.3 + 0.7 * (item.most / largest),
    isMuted: item.muted,
    words: `${item.muted ? 'Muted: a' : 'A'} burst of ${item.most > item.count ? `${item.count} to ${item.most}` : item.count}${item.times > 1 ? `, ${item.times} times` : ''}`,
    after: item.signal === null ? null : clock.startOf(item.stretch) + item.at - layer.bursts.byId[id]!.at,
  }));
}

/** Where a moment stands that is at a time of the sheet; what waits for a signal never comes before that. */
const placed = (clock: EffectClock, seconds: number, after: number | null) => {
  if (after !== null) return { at: Number(Math.max(0, seconds - after).toFixed(4)) };
  const { stretch, at } = clock.stretchOf(seconds);
  return { stretch, at: Number(at.toFixed(4)) };
};

export function moveMark(layer: Layer, { id, kind, after }: TimedMark, clock: EffectClock, seconds: number): void {
  const own = kind === 'hit' ? layer.source.kind === 'hits' && layer.source.hits.byId[id] : layer.bursts.byId[id];
  if (own) Object.assign(own, placed(clock, seconds, after));
}

/** Puts another of the same kind beside a mark. */
export function copyMark(
  layer: Layer,
  mark: TimedMark,
  clock: EffectClock,
  { seconds, id }: { readonly seconds: number; readonly id: string },
): void {
  const { source, bursts } = layer;
  if (mark.kind === 'burst')
    layer.bursts = withItem(bursts, id, { ...bursts.byId[mark.id]!, ...placed(clock, seconds, mark.after) });
  else if (source.kind === 'hits')
    source.hits = withItem(source.hits, id, { ...source.hits.byId[mark.id]!, ...placed(clock, seconds, null) });
}

export function removeMark(layer: Layer, { id, kind }: TimedMark): void {
  if (kind === 'burst') layer.bursts = withoutItem(layer.bursts, id);
  else if (layer.source.kind === 'hits') layer.source.hits = withoutItem(layer.source.hits, id);
}

/** A new burst at a time of the sheet. */
export const burstAt = (clock: EffectClock, seconds: number, count: number): Burst => {
  const { stretch, at } = clock.stretchOf(seconds);
  return burst(stretch, Number(at.toFixed(4)), count);
};
