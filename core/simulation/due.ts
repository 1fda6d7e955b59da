import { listed } from '../document/index.ts';
import type { EffectClock } from './clock.ts';
import type { CompiledLayer } from './compiled.ts';
import type { Reading } from './reader.ts';

/** Births fall on a grid this fine where they follow a moving source, whatever the step. */
const TRAVEL_GRID_PER_SECOND = 960;

/** Metres a source has travelled, and births given for them: the one thing about births that must be remembered. */
export interface Travel {
  metres: number;
}

/** The births that are due in a step: when, and whether they stand. Kept from step to step, so that none is made anew. */
export class DueList {
  times = new Float64Array(256);
  standing = new Uint8Array(256);
  count = 0;
  readonly #origin = new Float64Array(3);
  readonly #ahead = new Float64Array(3);

  #add(time: number, isStanding = false): void {
    if (this.count === this.times.length) {
      const [times, standing] = [new Float64Array(this.count * 2), new Uint8Array(this.count * 2)];
      times.set(this.times);
      standing.set(this.standing);
      [this.times, this.standing] = [times, standing];
    }
    this.times[this.count] = time;
    this.standing[this.count++] = isStanding ? 1 : 0;
  }

  /** Finds what is due between `from` and `to`, in order of time; of the same instant, standing ones first. */
  collect(
    layer: CompiledLayer,
    reading: Reading,
    step: number,
    from: number,
    to: number,
    clock: EffectClock,
    travel: Travel,
  ): void {
    this.count = 0;
    if (step === 0) {
      const wanted = layer.numbers['births.standing'].read(reading);
      const byArea = layer.numbers['births.perArea'].read(reading) * layer.source.area;
      for (let i = Math.floor(wanted) + Math.floor(byArea + 0.5); i > 0; i--) this.#add(0, true);
    }
    const start = layer.rate.births(from);
    const end = layer.rate.births(to);
    for (let k = Math.ceil(start); k < end; k++) this.#add(from + ((k - start) / (end - start)) * (to - from));
    const byRate = this.count;
    for (const { item } of listed(layer.bursts))
      for (const time of clock.instantsOf(item, from, to)) for (let i = 0; i < item.count; i++) this.#add(time);
    this.#addTravel(layer, reading, from, Math.min(to, clock.endsAt), travel);
    if (this.count > byRate && this.count > 1) this.#sort();
  }

  /** Walks the source's true path through the step on the fine grid, and finds where each whole share of a metre falls. */
  #addTravel(layer: CompiledLayer, reading: Reading, from: number, end: number, travel: Travel): void {
    const perMetre = layer.numbers['births.perMetre'].read(reading);
    if (!(perMetre > 0)) return;
    const below = layer.numbers['source.below'].read(reading);
    const [place, ahead] = [this.#origin, this.#ahead];
    let time = from;
    layer.source.originInto(place, time);
    while (time < end) {
      const next = Math.min(end, (Math.floor(time * TRAVEL_GRID_PER_SECOND + 1e-6) + 1) / TRAVEL_GRID_PER_SECOND);
      layer.source.originInto(ahead, next);
      const [x, y, z] = [ahead[0]! - place[0]!, ahead[1]! - place[1]!, ahead[2]! - place[2]!];
      const moved = Math.sqrt(x * x + y * y + z * z);
      if (moved > 0 && (below <= 0 || ahead[1]! < below)) {
        const before = travel.metres * perMetre;
        travel.metres += moved;
        const after = travel.metres * perMetre;
        for (let k = Math.floor(before) + 1; k <= after; k++)
          this.#add(time + ((k - before) / (after - before)) * (next - time));
      }
      time = next;
      place.set(ahead);
    }
  }

  /** Insertion sort: the list is made of a few sorted pieces, and equal instants keep their order. */
  #sort(): void {
    const { times, standing } = this;
    for (let i = 1; i < this.count; i++) {
      const [time, stands] = [times[i]!, standing[i]!];
      let k = i;
      for (; k > 0 && (times[k - 1]! > time || (times[k - 1] === time && standing[k - 1]! < stands)); k--) {
        times[k] = times[k - 1]!;
        standing[k] = standing[k - 1]!;
      }
      times[k] = time;
      standing[k] = stands;
    }
  }
}
