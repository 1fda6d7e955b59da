import { activeHits, type Hit, type Layer } from '../../document/index.ts';
import type { Reading } from '../values/reading.ts';
import { pointInto } from './particles.ts';
import {
  AT,
  NORMAL,
  OUT,
  STRENGTH,
  type BirthAsk,
  type SourceReader,
  type SourceSurroundings,
  type TakeEvent,
} from './source.ts';

/** Births where and when something is struck: by the layer's list, and from outside. Numbers of events: the list's, then strikes. */
export class HitsSource implements SourceReader {
  readonly rides = 'nothing';
  readonly canBear = true;
  readonly area = 0;
  readonly #around: SourceSurroundings;
  readonly #hits: readonly Hit[];
  readonly #matrix = new Float64Array(16);

  constructor(around: SourceSurroundings) {
    this.#around = around;
    const source = around.layer.source as Extract<Layer['source'], { kind: 'hits' }>;
    // By id, so that no order on screen reaches what is computed.
    this.#hits = activeHits(source)
      .sort((a, b) => (a.id < b.id ? -1 : 1))
      .map(({ item }) => item);
  }

  eventsIn(from: number, to: number, reading: Reading, take: TakeEvent): void {
    const { scene, numbers, strikes } = this.#around;
    const { clock } = scene;
    const count = (strength: number) => Math.floor(numbers['source.perHit'].read(reading) * strength + 0.5);
    this.#hits.forEach((hit, event) => {
      for (const share of clock.burstShares(hit, from, to)) take(share, count(hit.strength / 100), event);
    });
    const given = strikes();
    for (let n = 0; n < given.length; n++) {
      const time = clock.timeOf(given[n]!.step);
      if (time >= from && time < to) take(0, count(given[n]!.strength), this.#hits.length + n);
    }
  }

  bearInto(out: Float64Array, { event, time }: BirthAsk): void {
    const strike = this.#around.strikes()[event - this.#hits.length];
    if (strike) for (let axis = 0; axis < 3; axis++) out[AT + axis] = strike.at[axis]!;
    else this.#placeInto(out, this.#hits[event]!, time);
    out[STRENGTH] = strike ? strike.strength : this.#hits[event]!.strength / 100;
    pointInto(out);
    const { scale } = this.#around.group;
    for (let axis = 0; axis < 3; axis++)
      out[NORMAL + axis] = out[OUT + axis] = strike ? strike.normal[axis]! : this.#matrix[4 + axis]! / scale;
  }

  #placeInto(out: Float64Array, { place }: Hit, time: number): void {
    const { scene, group } = this.#around;
    scene.placeInto(this.#matrix, place, time, group.matrix);
    for (let axis = 0; axis < 3; axis++) out[AT + axis] = this.#matrix[12 + axis]!;
  }

  originInto(out: Float64Array): void {
    out.fill(0, 0, 3);
  }

  carrierInto(out: Float64Array, o: number): void {
    out.fill(0, o, o + 7);
    out[o + 3] = 1;
  }
}
