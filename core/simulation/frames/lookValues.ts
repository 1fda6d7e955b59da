import type { DressMoment } from './moment.ts';
import type { Population } from '../run/population.ts';
import { newReading, setTime, type ChannelValues, type Reading, type ReadingAround } from '../values/reading.ts';
import type { ColourPart } from '../values/colourPart.ts';
import { NumberReader } from '../values/numberReader.ts';
import { readingAt } from '../values/tables.ts';
import type { LookPlan } from '../looks/plan.ts';

/** Pieces of a life that a number shaped over age is tabulated in. */
const PIECES = 256;

/** A number over age: pairs M, A for each place of a life. */
interface ReaderTable {
  readonly reader: NumberReader;
  readonly pairs: Float64Array;
}

/** A number that differs between particles: by a table over age where one serves, else read for each. */
interface Own {
  readonly at: number;
  readonly reader: NumberReader | ColourPart;
  /** Null where no table serves. */
  readonly table: ReaderTable | null;
}

/** What a look asks of the layer it dresses. */
export interface LookedAt {
  /** The lifetime all its particles share; null where they differ. */
  readonly life: number | null;
  readonly channels: ChannelValues;
  readonly around: ReadingAround;
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
              table:
                reader instanceof NumberReader && reader.tableInput(life) === 'age'
                  ? { reader, pairs: new Float64Array((PIECES + 1) * 2) }
                  : null,
            },
          ]
        : [],
    );
    this.#used = this.#own.length + (plan.secondsAt === null ? 0 : 1);
  }

  /** Writes what all particles share at a moment, from word `at` on. */
  writeShared(out: Float32Array, at: number, { around }: LookedAt, { clock, step, dials }: DressMoment): void {
    const reading = this.#reading;
    reading.around = around;
    setTime(reading, clock, clock.timeOf(step));
    reading.dials = dials;
    reading.life = 1;
    reading.age = 0;
    for (const { kind, at: place, reader } of this.plan.numbers)
      if (kind === 'shared') out[at + place] = reader.middle(reading);
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
    for (const { table } of this.#own) {
      if (!table || (this.#isFilled && !table.reader.isTimed)) continue;
      const fixed = {
        life: dress.life,
        time,
        around: dress.around,
        effectTime: clock.share(time),
        stretchTime: clock.stretchShare(time),
        dials,
      };
      for (let n = 0; n <= PIECES; n++) {
        table.reader.affineInto(readingAt(reading, fixed, 'age', n / PIECES), this.#pair);
        table.pairs.set(this.#pair, n * 2);
      }
    }
    this.#isFilled = true;
    setTime(reading, clock, time);
    reading.dials = dials;
    reading.channels = dress.channels;
    reading.around = dress.around;
    return reading;
  }

  #put(out: Float32Array | Float64Array, o: number, reading: Reading, seconds: number): void {
    if (this.plan.secondsAt !== null) out[o + this.plan.secondsAt] = seconds;
    for (const { at, reader: own, table } of this.#own) {
      if (!table) {
        out[o + at] = own.read(reading);
        continue;
      }
      const { reader, pairs } = table;
      const base = reader.drawn(reading.key);
      const place = reading.age * PIECES;
      const n = Math.min(PIECES - 1, Math.floor(place)) * 2;
      const t = place - n / 2;
      const value =
        base * (pairs[n]! + (pairs[n + 2]! - pairs[n]!) * t) + pairs[n + 1]! + (pairs[n + 3]! - pairs[n + 1]!) * t;
      out[o + at] = Math.max(reader.least, Math.min(reader.most, value)) * reader.scale;
    }
  }
}
