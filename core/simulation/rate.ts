import type { EffectClock } from './clock.ts';
import { newReading, type NumberReader } from './reader.ts';

const CELLS = 512;

/**
 * How many births a rate has given up to any time: a function of time alone, so that any route to a step counts alike.
 * A rate that changes along the time sheet is integrated once over fixed cells of the sheet by Simpson's rule, which is
 * exact for the cubics curves are made of. A rate that does not change runs level and fades out evenly over the closing.
 */
export class RateIntegral {
  readonly #clock: EffectClock;
  readonly #level: number;
  readonly #sums: Float64Array | null;
  readonly #rateAt: (share: number) => number;

  constructor(rate: NumberReader, clock: EffectClock, dials: Readonly<Record<string, number>>) {
    this.#clock = clock;
    const reading = { ...newReading(), dials };
    this.#rateAt = (share) => {
      reading.effectTime = share;
      return rate.read(reading);
    };
    this.#level = this.#rateAt(0);
    this.#sums = null;
    if (rate.isConstant || clock.length === 0) return;
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

  /** Births due before `time`, as a real number. */
  births(time: number): number {
    const { opening, hold, closing, closesAt } = this.#clock;
    const open = Math.min(time, closesAt);
    const after = Math.max(0, Math.min(time - closesAt, closing));
    if (!this.#sums) return this.#level * (open + (closing > 0 ? after - (after * after) / (2 * closing) : 0));
    if (open <= opening || hold === 0)
      return this.#alongSheet(open) + (after > 0 ? this.#alongSheet(opening + after) - this.#alongSheet(opening) : 0);
    const start = this.#alongSheet(opening);
    const turns = Math.floor((open - opening) / hold);
    const whole = this.#alongSheet(opening + hold) - start;
    const held = turns * whole + this.#alongSheet(open - turns * hold) - start;
    return start + held + this.#alongSheet(opening + hold + after) - this.#alongSheet(opening + hold);
  }
}
