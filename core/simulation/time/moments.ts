import { type Effect, highestBase, type Layer, type Moment, timedBursts } from '../../document/index.ts';
import type { EffectClock } from './clock.ts';

/** When a layer's births may happen, in the effect's time; `until` is Infinity while nothing says when they end. */
export interface BirthWindow {
  readonly from: number;
  readonly until: number;
  /** True where the document gives no end, so that a steady rate fades out over the closing. */
  readonly isOpen: boolean;
}

type Document = Pick<Effect, 'layers' | 'measures' | 'signals'>;

function secondsOf({ seconds, measure }: Moment, { measures }: Document): number {
  return measure ? (seconds < 0 ? -1 : 1) * (measures.byId[measure]?.value ?? 0) : seconds;
}

/** A moment in the effect's time. */
export function timeOfMoment(moment: Moment, effect: Document, clock: EffectClock): number {
  const { after } = moment;
  const seconds = secondsOf(moment, effect);
  if (after.kind === 'border') {
    const borders = {
      start: Math.min(0, clock.beginsAt),
      hold: clock.opening,
      letGo: clock.closesAt,
      end: clock.endsAt,
    };
    return borders[after.border] + seconds;
  }
  const layer = effect.layers.byId[after.layer];
  if (!layer) return seconds;
  const window = windowOf(layer, effect, clock);
  if (after.event === 'firstBirth') return firstBirth(layer, window, effect, clock) + seconds;
  const last = lastBirth(layer, window, effect, clock);
  return last + seconds + (after.event === 'lastDeath' ? longestLife(layer, effect) : 0);
}

export function windowOf({ births }: Layer, effect: Document, clock: EffectClock): BirthWindow {
  const from = timeOfMoment(births.from, effect, clock);
  const until = births.until ? timeOfMoment(births.until, effect, clock) : Infinity;
  return { from, until: Math.max(from, until), isOpen: births.until === null };
}

const hasRate = ({ settings }: Layer): boolean => {
  const { base, shapers, muted } = settings['births.rate'];
  return !muted && (shapers.order.length > 0 || base.kind !== 'fixed' || base.value > 0);
};

/** The first and the last time of each burst, in the effect's time. */
function burstTimes(layer: Layer, effect: Document, clock: EffectClock): number[] {
  return timedBursts(layer, effect).flatMap(({ item }) => {
    const first = clock.startOf(item.stretch) + item.at;
    return [first, first + (item.times - 1) * item.every];
  });
}

function firstBirth(layer: Layer, window: BirthWindow, effect: Document, clock: EffectClock): number {
  const bursts = burstTimes(layer, effect, clock);
  return hasRate(layer) || bursts.length === 0 ? window.from : Math.max(window.from, Math.min(...bursts));
}

function lastBirth(layer: Layer, window: BirthWindow, effect: Document, clock: EffectClock): number {
  const bursts = burstTimes(layer, effect, clock);
  const last = hasRate(layer) || bursts.length === 0 ? clock.endsAt : Math.max(...bursts);
  return Math.min(window.until, last);
}

/** The longest that a particle of a layer may live, in seconds. */
const longestLife = (layer: Layer, document: Document): number =>
  highestBase(layer.settings['births.life'].base, document) ?? 0;
