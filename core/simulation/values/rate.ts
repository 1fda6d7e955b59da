import type { EffectClock } from '../time/clock.ts';
import { newReading } from './reading.ts';
import type { NumberReader } from './numberReader.ts';

const CELLS = 512;

/**
 * How many births a rate has given up to any time: a function of time alone, so that any route to a step counts alike.
 * A rate that changes along the time sheet is integrated once over fixed cells of the sheet by Simpson's rule, which is
 * exact for the cubics curves are made of. A rate that does not change runs level and fades out evenly over the closing.
 */
export class RateIntegral {
  readonly #clock: EffectClock;
  readonly #level: number;
  /** Whether a steady rate fades out over the closing, rather than lasting to its end. */
  readonly #fades: boolean;
  readonly #sums: Float64Array | null;
  readonly #rateAt: (share: number) => number;

  constructor(rate: NumberReader, clock: EffectClock, dials: Readonly<Record<string, number>>, fades = true) {
    this.#fades = fades;
    this.#clock = clock;
    const reading = { ...newReading(), dials };
    this.#rateAt = (share) => {
      reading.effectTime = share;
      reading.stretchTime = clock.stretchShareAlong(share * clock.length);
      return rate.read(reading);
    };
    this.#level = this.#rateAt(0);
    this.#sums = null;
    if (rate.isLevel || clock.length === 0) return;
    const sums = new Float64Array(CELLS + 1);
    for (let i = 0; i < CELLS; i++) sums[i + 1] = sums[i]! + this.#cell(i / CELLS, (i + 1) / CELLS);
    this.#sums = sums;
  }

  #cell(from: number, to: number): number {
    const mean = (this.#rateAt(from) + 4 * this.#rateAt((from + to) / 2) + this.#rateAt(to)) / 6;
    return mean * (to - from) * this.#clock.length;
  }

  /** Births from the sheet's left end to `seconds` along it. */
  #alongSheet(seconds: number): number {
    const x = (seconds / this.#clock.length) * CELLS;
    const i = Math.min(CELLS - 1, Math.floor(x));
    return this.#sums![i]! + this.#cell(i / CELLS, x / CELLS);
  }

  /**
   * Births due before two shares of a step that begins at `from`, as real numbers counted from the same beginning: in a
   * hold without a seam from the beginning of its turn, so that every turn bears alike.
   */
  span(from: number, first: number, last: number): [number, number] {
    const clock = this.#clock;
    const step = 1 / clock.rate;
    if (!clock.isSeamless || clock.stepOfHold(from) < 0)
      return [this.births(from + first * step), this.births(last === 1 ? clock.after(from) : from + last * step)];
    const start = this.births(clock.opening);
    const sheet = clock.sheetTime(from);
    return [this.births(sheet + first * step) - start, this.births(sheet + last * step) - start];
  }

  /** Births due before `time`, as a real number. */
  births(time: number): number {
    const { opening, hold, closing, closesAt } = this.#clock;
    const open = Math.min(time, closesAt);
    const after = Math.max(0, Math.min(time - closesAt, closing));
    if (!this.#sums)
      return (
        this.#level *
        (open - this.#clock.beginsAt + (this.#fades && closing > 0 ? after - (after * after) / (2 * closing) : after))
      );
    if (hold === 0 || (open <= opening && this.#clock.preRoll === 0))
      return this.#alongSheet(open) + (after > 0 ? this.#alongSheet(opening + after) - this.#alongSheet(opening) : 0);
    const start = this.#alongSheet(opening);
    const turns = Math.floor((open - opening) / hold);
    const whole = this.#alongSheet(opening + hold) - start;
    const held = turns * whole + this.#alongSheet(open - turns * hold) - start;
    return start + held + this.#alongSheet(opening + hold + after) - this.#alongSheet(opening + hold);
  }
}

/**
 * How far what goes at a speed of its own has come by any time: metres of a field that drifts, changes of one that becomes
 * another. In a hold without a seam it comes again with every turn.
 */
export class Progress {
  readonly #along: RateIntegral;
  readonly #clock: EffectClock;

  constructor(speed: NumberReader, clock: EffectClock, dials: Readonly<Record<string, number>>) {
    this.#clock = clock;
    this.#along = new RateIntegral(speed, clock, dials, false);
  }

  at(time: number): number {
    return this.#along.births(this.#clock.fieldTime(time));
  }

  /** As changes, of which a turn of a hold without a seam has a whole number: how many, and how many there are in a turn (0: no such turn). */
  changesInto(out: { changes: number; turn: number }, time: number): void {
    const { isSeamless, opening, hold } = this.#clock;
    out.changes = this.at(time);
    out.turn = 0;
    if (!isSeamless || hold === 0) return;
    const start = this.#along.births(opening);
    const whole = this.#along.births(opening + hold) - start;
    out.turn = whole > 0 ? Math.max(1, Math.floor(whole + 0.5)) : 0;
    if (out.turn > 0) out.changes = ((out.changes - start) / whole) * out.turn;
  }
}
