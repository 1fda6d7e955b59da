import {
  CELLS,
  DRESS_ANGLE,
  DRESS_ARRAYS,
  DRESS_COLOURS,
  DRESS_HAS_ARRAYS,
  DRESS_HAS_SCALES,
  DRESS_HAS_SPREAD,
  DRESS_HAS_TURNING,
  DRESS_HIGHEST,
  DRESS_IN_LIVES,
  DRESS_LOWEST,
  DRESS_ROW,
  DRESS_SLOTS,
  DRESS_SPREADS,
  DRESS_STANDING,
  DRESS_STEP,
  DRESS_TABLE,
  DRESS_WAITING,
  DRESS_WORDS,
  type Kernels,
} from '../../kernels/index.ts';
import { radians } from '../../maths/index.ts';
import { SCRATCH, type Scratch } from '../run/memory.ts';
import type { Population } from '../run/population.ts';
import { SHORTEST_STANDING } from '../time/clock.ts';
import { newReading, setTime } from '../values/reading.ts';
import { readingAt, type TableMoment } from '../values/tables.ts';
import { degreesIn, SHAPED, type Dress } from './dress.ts';
import type { DressMoment } from './moment.ts';
import { isReadAngle, untabledOf, type Untabled } from './untabled.ts';

const MOST_COLOURS = 16;

/** Bytes of one layer's dress: its words, its base colours and its table. */
export const DRESS_BYTES = DRESS_WORDS * 4 + 16 + MOST_COLOURS * 16 + (CELLS + 1) * DRESS_ROW * 4;
const COLOURS_AT = DRESS_WORDS * 4 + 16;
const TABLE_AT = COLOURS_AT + MOST_COLOURS * 16;

/** Arrays that settings no table serves are read into: size, opacity, intensity, turning and turn, red, green, blue. */
export const DRESS_ARRAY_COUNT = 8;

/** One layer's dress in a world's memory: writes its particles' records, functions of what each already carries. */
export class Dresser {
  readonly #buffer: ArrayBufferLike;
  readonly #address: number;
  readonly #scratch: Scratch;
  readonly #f32: Float32Array;
  readonly #i32: Int32Array;
  readonly #reading = newReading();
  readonly #rgb = new Float64Array(3);
  /** The dress that its words and its table are of, and what stays the same of that. */
  #dress: Dress | null = null;
  #isTimed = false;
  #untabled: Untabled = { each: [], hasColour: false };

  /** `scratch` is room that dressers use by turns. */
  constructor(buffer: ArrayBufferLike, address: number, scratch: Scratch) {
    this.#buffer = buffer;
    this.#address = address;
    this.#scratch = scratch;
    this.#f32 = new Float32Array(buffer, address, DRESS_WORDS);
    this.#i32 = new Int32Array(buffer, address, DRESS_WORDS);
  }

  /** Writes the records of the living at byte address `out` of the same memory; returns how many. */
  write(kernels: Kernels, population: Population, dress: Dress, moment: DressMoment, out: number): number {
    const { step, rate, clock } = moment;
    const time = clock.timeOf(step);
    const isOther = this.#dress !== dress;
    if (isOther) this.#take(dress);
    if (isOther || this.#isTimed) this.#fill(dress, moment, time);
    this.#i32[DRESS_HAS_SCALES] = dress.isGivenSize ? 1 : 0;
    this.#i32[DRESS_IN_LIVES] = dress.turnsInLives ? 1 : 0;
    this.#i32[DRESS_STEP] = step;
    this.#f32[DRESS_STEP + 1] = 1 / rate;
    this.#f32[DRESS_STANDING] = clock.standingAge(time);
    this.#f32[DRESS_STANDING + 1] = Math.max(clock.length, SHORTEST_STANDING);
    this.#readUntabled(population, dress, moment);
    return kernels.dress(population.base, population.stride, 0, population.count, this.#address, SCRATCH, out);
  }

  /** Finds what stays the same of a dress. */
  #take(dress: Dress): void {
    const { numbers, colour } = dress;
    this.#dress = dress;
    this.#isTimed = colour.isTimed || SHAPED.some(([name]) => numbers[name].isTimed);
    this.#untabled = untabledOf(dress);
    this.#i32[DRESS_HAS_ARRAYS] = this.#untabled.each.length > 0 || this.#untabled.hasColour ? 1 : 0;
    this.#i32.fill(0, DRESS_ARRAYS, DRESS_ARRAYS + DRESS_ARRAY_COUNT);
  }

  #fill(dress: Dress, { clock, dials }: DressMoment, time: number): void {
    const { numbers, colour, life } = dress;
    const { waitingAge } = clock;
    const moment: TableMoment = {
      life,
      time,
      around: dress.around,
      effectTime: clock.share(time),
      stretchTime: clock.stretchShare(time),
      dials,
    };
    const angle = numbers['life.angle'];
    this.#i32[DRESS_TABLE] = this.#address + TABLE_AT;
    this.#i32[DRESS_COLOURS] = this.#address + COLOURS_AT;
    this.#i32[DRESS_COLOURS + 1] = colour.isTaken ? 0 : colour.bases.length / 3;
    this.#i32[DRESS_COLOURS + 2] = colour.slot;
    const colours = new Float32Array(this.#buffer, this.#address + COLOURS_AT, MOST_COLOURS * 4);
    for (let i = 0; i < colour.bases.length; i++) colours[Math.floor(i / 3) * 4 + (i % 3)] = colour.bases[i]!;
    // An angle that no draw between two ends makes is a part of the turn, which is then read for each.
    const isDrawn = !isReadAngle(angle);
    this.#f32[DRESS_ANGLE] = isDrawn ? radians(angle.low) : 0;
    this.#f32[DRESS_ANGLE + 1] = isDrawn ? radians(angle.high - angle.low) : 0;
    this.#i32[DRESS_ANGLE + 2] = angle.slot;
    SHAPED.forEach(([name, unit], column) => {
      const reader = numbers[name];
      const scale = unit * reader.scale;
      const isTurning = name === 'life.turning';
      this.#i32[DRESS_SLOTS + column] = reader.slot;
      this.#i32[DRESS_SPREADS + column] = reader.high !== reader.low ? 1 : 0;
      this.#f32[DRESS_LOWEST + column] = isTurning ? -1e6 : reader.least * scale;
      this.#f32[DRESS_HIGHEST + column] = isTurning ? 1e6 : reader.most * scale;
    });
    const turning = numbers['life.turning'];
    this.#i32[DRESS_HAS_SPREAD] = SHAPED.some(([name]) => numbers[name].high !== numbers[name].low) ? 1 : 0;
    this.#i32[DRESS_HAS_TURNING] = turning.isConstant && turning.low === 0 && isDrawn ? 0 : 1;
    this.#fillTable(dress, moment);
    const waiting = new Float64Array(2);
    turning.affineInto(readingAt(this.#reading, moment, 'age', waitingAge), waiting);
    const degrees = degreesIn(dress);
    this.#f32[DRESS_WAITING] = radians((turning.low * waiting[0]! + waiting[1]!) * degrees);
    this.#f32[DRESS_WAITING + 1] = radians((turning.high - turning.low) * waiting[0]! * degrees);
  }

  #fillTable(dress: Dress, moment: TableMoment): void {
    const { numbers, colour } = dress;
    const rows = new Float32Array(this.#buffer, this.#address + TABLE_AT, (CELLS + 1) * DRESS_ROW);
    const reading = this.#reading;
    const pair = new Float64Array(2);
    const six = new Float64Array(6);
    const before = [0, 0];
    const turned = [0, 0];
    for (let i = 0; i <= CELLS; i++) {
      const row = i * DRESS_ROW;
      readingAt(reading, moment, 'age', i / CELLS);
      SHAPED.forEach(([name, unit], column) => {
        const reader = numbers[name];
        const scale = unit * reader.scale * (name === 'life.turning' ? degreesIn(dress) : 1);
        reader.affineInto(reading, pair);
        const ends = [(reader.low * pair[0]! + pair[1]!) * scale, (reader.high - reader.low) * pair[0]! * scale];
        ends.forEach((end, k) => {
          if (name !== 'life.turning') rows[row + 4 * k + column] = end;
          else {
            // The turn since birth is the turning summed over age by trapezes.
            if (i > 0) turned[k]! += (before[k]! + end) / 2 / CELLS;
            before[k] = end;
            rows[row + 4 * k + column] = turned[k]!;
            rows[row + 11 + 4 * k] = end;
          }
        });
      });
      colour.affineInto(reading, six);
      for (let c = 0; c < 3; c++) {
        rows[row + 8 + c] = colour.bases[c]! * six[c]! + six[3 + c]!;
        rows[row + 12 + c] = six[c]!;
        rows[row + 16 + c] = six[3 + c]!;
      }
    }
  }

  /** Reads settings that no table serves, for each particle, into arrays whose addresses the words then hold. */
  #readUntabled(
    population: Population,
    { colour, channels, around }: Dress,
    { step, rate, clock, dials }: DressMoment,
  ): void {
    const { each, hasColour } = this.#untabled;
    if (each.length === 0 && !hasColour) return;
    const reading = this.#reading;
    setTime(reading, clock, clock.timeOf(step));
    reading.dials = dials;
    reading.channels = channels;
    reading.around = around;
    const standingAge = clock.standingAge(clock.timeOf(step));
    const { arrays } = this.#scratch;
    const outs = each.map(({ array }) => arrays.floats(array));
    const rgb = [5, 6, 7].map((n) => (hasColour ? arrays.floats(n) : null));
    for (let i = 0; i < population.count; i++) {
      population.readInto(reading, i, step, rate, standingAge, clock.length);
      const seconds = population.stepsLived(i, step) / rate;
      for (let k = 0; k < each.length; k++) outs[k]![i] = each[k]!.read(reading, seconds, population, i, clock);
      if (!hasColour) continue;
      colour.readInto(reading, this.#rgb, population.tint, i);
      for (let c = 0; c < 3; c++) rgb[c]![i] = this.#rgb[c]!;
    }
    for (const { array } of each) this.#i32[DRESS_ARRAYS + array] = arrays.address(array);
    if (hasColour) for (const n of [5, 6, 7]) this.#i32[DRESS_ARRAYS + n] = arrays.address(n);
  }
}
