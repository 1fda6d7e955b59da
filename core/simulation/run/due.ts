import type { Burst } from '../../document/index.ts';
import type { EffectClock } from '../time/clock.ts';
import { draw, hash2, slotOf } from '../../maths/index.ts';
import { grown } from '../values/grown.ts';
import type { BirthWindow } from '../time/moments.ts';
import type { Reading } from '../values/reading.ts';
import type { CompiledLayer } from '../compile/plan.ts';

/** Births fall on a grid at least this fine where they follow a moving source, whatever the step. */
const TRAVEL_GRID_PER_SECOND = 960;

/** Metres a source has travelled, and births given for them: the one thing about births that must be remembered. */
export interface Travel {
  metres: number;
}

/** A step, as far as births are concerned. Times are of the effect. */
export interface DueStep {
  readonly from: number;
  readonly to: number;
  readonly isFirst: boolean;
  readonly clock: EffectClock;
  readonly seed: number;
}

/** The shares of a step between which a window lets births happen. */
function windowed({ from, until }: BirthWindow, start: number, end: number, clock: EffectClock): [number, number] {
  // In a hold without a seam the window opens anew with every turn, as it lies on the time sheet.
  const begin = clock.isSeamless && clock.stepOfHold(start) >= 0 ? clock.sheetTime(start) : start;
  const first = from > begin ? (from - begin) * clock.rate : 0;
  const isWhole = begin === start ? until >= end : until >= begin + 1 / clock.rate;
  return [first, isWhole ? 1 : (until - begin) * clock.rate];
}

/** The shares of a step at which a burst comes, so many seconds after what it counts from. */
const sharesOf = (
  { signal, stretch }: Burst,
  at: number,
  { signals }: CompiledLayer,
  { from, to, clock }: Pick<DueStep, 'from' | 'to' | 'clock'>,
): readonly number[] =>
  signal === null ? clock.burstShares({ stretch, at }, from, to) : signals.sharesAfter(signal, at, from, to);

/** What is to be known of a birth beside its instant: whether it stands, and whether it is the first of several at once. */
export const STANDS = 1;
export const LEADS = 2;

/** The births that are due in a step: when, and whether they stand. Kept from step to step, so that none is made anew. */
export class DueList {
  times = new Float64Array(256);
  /** STANDS and LEADS. */
  marks = new Uint8Array(256);
  /** Which of the source's events each is born of. */
  events = new Int32Array(256);
  count = 0;
  readonly #origin = new Float64Array(3);
  readonly #ahead = new Float64Array(3);

  #add(time: number, marks = 0, event = 0): void {
    this.times = grown(this.times, this.count + 1);
    this.marks = grown(this.marks, this.count + 1);
    this.events = grown(this.events, this.count + 1);
    this.times[this.count] = time;
    this.events[this.count] = event;
    this.marks[this.count++] = marks;
  }

  /** Finds what is due between `from` and `to`, in order of time; of the same instant, standing ones first. */
  collect(layer: CompiledLayer, reading: Reading, step: DueStep, travel: Travel): void {
    this.count = 0;
    const { from, to, clock } = step;
    const { window, source } = layer;
    if (source.eventsIn) {
      source.eventsIn(from, to, reading, (share, count, event) => {
        for (let i = 0; i < count; i++) this.#add(clock.instant(from, share), i === 0 ? LEADS : 0, event);
      });
      if (this.count > 1) this.#sort();
      return;
    }
    if (window.from >= from && window.from < to) this.#addStanding(layer, reading, window.from);
    else if (step.isFirst && window.from < from) this.#addStanding(layer, reading, from);
    const [first, last] = windowed(window, from, to, clock);
    if (first < last) {
      this.#addRate(layer, step, first, last);
      const byRate = this.count;
      this.#addBursts(layer, step, first, last);
      this.#addTravel(layer, reading, step, first, last, travel);
      if (this.count === byRate) return;
    }
    if (this.count > 1) this.#sort();
  }

  #addStanding(layer: CompiledLayer, reading: Reading, time: number): void {
    const wanted = layer.numbers['births.standing'].read(reading);
    const byArea = layer.numbers['births.perArea'].read(reading) * layer.source.area;
    const count = Math.floor(wanted) + Math.floor(byArea + 0.5);
    for (let i = 0; i < count; i++) this.#add(time, i === 0 ? STANDS | LEADS : STANDS);
  }

  #addRate({ rate, window }: CompiledLayer, { clock, from }: DueStep, first: number, last: number): void {
    const [start, end] = rate.span(from, first, last);
    // Counted from where the window opens, so that its first birth falls there.
    const begun = clock.isSeamless || window.from <= clock.beginsAt ? 0 : rate.births(window.from);
    for (let k = Math.ceil(start - begun); k < end - begun; k++)
      this.#add(clock.instant(from, first + ((k - (start - begun)) / (end - start)) * (last - first)));
  }

  #addBursts(layer: CompiledLayer, { from, to, clock, seed }: DueStep, first: number, last: number): void {
    for (const { id, item } of layer.bursts)
      for (let time = 0; time < item.times; time++)
        for (const share of sharesOf(item, item.at + time * item.every, layer, { from, to, clock })) {
          if (share < first || share >= last) continue;
          const thrown = slotOf(`burst/${id}/${time}`);
          const turn = clock.isSeamless ? 0 : Math.floor(from * clock.rate + 0.5);
          const more = Math.max(0, item.most - item.count) + 1;
          const drawn = Math.floor(draw(hash2(hash2(seed, layer.layer.salt), thrown), turn) * more);
          for (let i = 0; i < item.count + drawn; i++) this.#add(clock.instant(from, share), i === 0 ? LEADS : 0);
        }
  }

  /** Walks the source's true path through the step on a fine grid, and finds where each whole share of a metre falls. */
  #addTravel(
    layer: CompiledLayer,
    reading: Reading,
    { from, clock }: DueStep,
    first: number,
    last: number,
    travel: Travel,
  ): void {
    const perMetre = layer.numbers['births.perMetre'].read(reading);
    if (!(perMetre > 0) || from >= clock.endsAt) return;
    const below = layer.numbers['source.below'].read(reading);
    const place = this.#origin;
    const ahead = this.#ahead;
    const pieces = Math.max(1, Math.ceil(TRAVEL_GRID_PER_SECOND / clock.rate));
    layer.source.originInto(place, from);
    for (let piece = 0; piece < pieces; piece++) {
      layer.source.originInto(ahead, clock.instant(from, (piece + 1) / pieces));
      const x = ahead[0]! - place[0]!;
      const y = ahead[1]! - place[1]!;
      const z = ahead[2]! - place[2]!;
      const moved = Math.sqrt(x * x + y * y + z * z);
      const share = piece / pieces;
      if (moved > 0 && share >= first && share < last && (below <= 0 || ahead[1]! < below)) {
        const before = travel.metres * perMetre;
        travel.metres += moved;
        const after = travel.metres * perMetre;
        for (let k = Math.floor(before) + 1; k <= after; k++)
          this.#add(clock.instant(from, share + (k - before) / (after - before) / pieces));
      }
      place.set(ahead);
    }
  }

  /** Insertion sort: the list is made of a few sorted pieces, and equal instants keep their order. */
  #sort(): void {
    const { times, marks, events } = this;
    for (let i = 1; i < this.count; i++) {
      const time = times[i]!;
      const mark = marks[i]!;
      const stands = mark & STANDS;
      const event = events[i]!;
      let k = i;
      for (; k > 0 && (times[k - 1]! > time || (times[k - 1] === time && (marks[k - 1]! & STANDS) < stands)); k--) {
        times[k] = times[k - 1]!;
        marks[k] = marks[k - 1]!;
        events[k] = events[k - 1]!;
      }
      times[k] = time;
      marks[k] = mark;
      events[k] = event;
    }
  }
}
