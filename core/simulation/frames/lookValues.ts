import { draw } from '../../maths/index.ts';
import type { DressMoment } from './moment.ts';
import type { Population } from '../run/population.ts';
import { newReading, setTime, type ChannelValues, type Reading } from '../values/reading.ts';
import type { NumberReader } from '../values/numberReader.ts';
import { readingAt } from '../values/tables.ts';
import type { LookPlan } from '../looks/plan.ts';

/** Pieces of a life that a number shaped over age is tabulated in. */
const PIECES = 256;

/** A number that differs between particles: by a table over age where one serves, else read for each. */
interface Own {
  readonly at: number;
  readonly reader: NumberReader;
  /** Pairs M, A for each place of a life; null where no table serves. */
  readonly table: Float64Array | null;
}

/** What a look asks of the layer it dresses. */
export interface LookedAt {
  /** The lifetime all its particles share; null where they differ. */
  readonly life: number | null;
  readonly channels: ChannelValues;
}

/** Writes the numbers of a layer's look into frames: those that all its particles share, and those of each. */
export class LookValues {
  readonly plan: LookPlan;
  readonly #own: readonly Own[];
  readonly #reading = newReading();
  readonly #pair = new Float64Array(2);
  #isFilled = false;
  /** Words of each particle that its numbers take up. */
  readonly #used: number;

  /** `life` is the lifetime all particles share, null where they differ. */
  constructor(plan: LookPlan, life: number | null) {
    this.plan = plan;
    this.#own = plan.numbers.flatMap(({ kind, at, reader }): Own[] =>
      kind === 'own'
        ? [
            {
              at,
              reader,
              table: reader.tableInput(life) === 'age' ? new Float64Array((PIECES + 1) * 2) : null,
            },
          ]
        : [],
    );
    this.#used = this.#own.length + (plan.secondsAt === null ? 0 : 1);
  }

  /** Writes what all particles share at a moment, from word `at` on. */
  writeShared(out: Float32Array, at: number, { clock, step, dials }: DressMoment): void {
    const reading = this.#reading;
    setTime(reading, clock, clock.timeOf(step));
    reading.dials = dials;
    reading.life = 1;
    reading.age = 0;
    for (const { kind, at: place, reader } of this.plan.numbers)
      if (kind === 'shared') out[at + place] = reader.readFrom((reader.low + reader.high) / 2, reading);
  }

  /** Writes what each of the living has, from word `at` on, `stride` words apart, in the order of the population. */
  writeOwn(
    out: Float32Array,
    at: number,
    stride: number,
    population: Population,
    dress: LookedAt,
    moment: DressMoment,
  ): void {
    const { ownWords } = this.plan;
    if (ownWords === 0) return;
    const { step, rate, clock } = moment;
    const reading = this.#begin(dress, moment);
    const standingAge = clock.standingAge(clock.timeOf(step));
    let o = at;
    for (let i = 0; i < population.count; i++) {
      if (population.isDead(i)) continue;
      population.readInto(reading, i, step, rate, standingAge, clock.length);
      this.#put(out, o, reading, population.stepsLived(i, step) / rate);
      // Words that no number has say nothing, also where another layer's stood before.
      for (let word = this.#used; word < ownWords; word++) out[o + word] = 0;
      o += stride;
    }
  }

  /** Writes what particle `i` has, as it would be at an age. */
  writeAt(
    out: Float32Array | Float64Array,
    at: number,
    age: number,
    population: Population,
    i: number,
    dress: LookedAt,
    moment: DressMoment,
  ): void {
    if (this.plan.ownWords === 0) return;
    const { step, rate, clock } = moment;
    const reading = this.#begin(dress, moment);
    population.readInto(reading, i, step, rate, clock.standingAge(clock.timeOf(step)), clock.length);
    reading.age = age;
    this.#put(out, at, reading, age * reading.life);
  }

  #begin(dress: LookedAt, moment: DressMoment): Reading {
    const { clock, step, dials } = moment;
    const time = clock.timeOf(step);
    const reading = this.#reading;
    for (const { table, reader } of this.#own) {
      if (!table || (this.#isFilled && !reader.isTimed)) continue;
      const fixed = {
        life: dress.life,
        effectTime: clock.share(time),
        stretchTime: clock.stretchShare(time),
        dials,
      };
      for (let n = 0; n <= PIECES; n++) {
        reader.affineInto(readingAt(reading, fixed, 'age', n / PIECES), this.#pair);
        table.set(this.#pair, n * 2);
      }
    }
    this.#isFilled = true;
    setTime(reading, clock, time);
    reading.dials = dials;
    reading.channels = dress.channels;
    return reading;
  }

  #put(out: Float32Array | Float64Array, o: number, reading: Reading, seconds: number): void {
    if (this.plan.secondsAt !== null) out[o + this.plan.secondsAt] = seconds;
    for (const { at, reader, table } of this.#own) {
      if (!table) {
        out[o + at] = reader.read(reading);
        continue;
      }
      const base =
        reader.low + (reader.high === reader.low ? 0 : (reader.high - reader.low) * draw(reading.key, reader.slot));
      const place = reading.age * PIECES;
      const n = Math.min(PIECES - 1, Math.floor(place)) * 2;
      const t = place - n / 2;
      const value =
        base * (table[n]! + (table[n + 2]! - table[n]!) * t) + table[n + 1]! + (table[n + 3]! - table[n + 1]!) * t;
      out[o + at] = Math.max(reader.least, Math.min(reader.most, value)) * reader.scale;
    }
  }
}
