import type { Place } from '../../../document/index.ts';
import type { EffectClock } from '../../time/clock.ts';
import type { Scene } from '../../scene/scene.ts';

/** How far the swept edge may lie from the truth, metres; and into how many pieces a step is cut at most. */
const MOST_ERROR = 0.001;
const MOST_DEPTH = 6;

/** Words of a sample: the share of its step, then the blade's two ends. */
export const SAMPLE_WORDS = 7;

export interface BladeEnds {
  readonly from: Place;
  readonly to: Place;
  readonly group: Float64Array | null;
}

/** Where a blade's two ends were in each step, sampled from the true pose as finely as its swing asks for. */
export class BladeTrack {
  readonly #ends: BladeEnds;
  readonly #scene: Scene;
  readonly #clock: EffectClock;
  /** Samples of a step, the one at its start included; by step. */
  readonly #steps = new Map<number, Float64Array>();
  readonly #matrix = new Float64Array(16);

  constructor(ends: BladeEnds, scene: Scene, clock: EffectClock) {
    this.#ends = ends;
    this.#scene = scene;
    this.#clock = clock;
  }

  /** Writes where the two ends are at a time. */
  endsInto(out: Float64Array, o: number, time: number): void {
    const m = this.#matrix;
    const { from, to, group } = this.#ends;
    [from, to].forEach((place, end) => {
      this.#scene.placeInto(m, place, time, group);
      for (let axis = 0; axis < 3; axis++) out[o + end * 3 + axis] = m[12 + axis]!;
    });
  }

  /** Samples of a step; those of steps before `oldest` are forgotten. */
  samplesOf(step: number, oldest: number): Float64Array {
    const known = this.#steps.get(step);
    if (known) return known;
    for (const at of this.#steps.keys()) if (at < oldest || at > step + 600) this.#steps.delete(at);
    const [start, end] = [this.#clock.timeOf(step), this.#clock.timeOf(step + 1)];
    const found: number[] = [];
    const sample = (share: number): Float64Array => {
      const at = new Float64Array(SAMPLE_WORDS);
      at[0] = share;
      this.endsInto(at, 1, start + (end - start) * share);
      return at;
    };
    const split = (a: Float64Array, b: Float64Array, depth: number): void => {
      const middle = sample((a[0]! + b[0]!) / 2);
      // A half of the chord may be as wrong as a quarter of it, so both quarters are looked at too.
      if (depth > 0 && (isOff(a, middle, b) || depth === MOST_DEPTH)) {
        split(a, middle, depth - 1);
        found.push(...middle);
        split(middle, b, depth - 1);
      }
    };
    const first = sample(0);
    found.push(...first);
    split(first, sample(1), MOST_DEPTH);
    const samples = Float64Array.from(found);
    this.#steps.set(step, samples);
    return samples;
  }
}

/** Whether the middle of a piece lies off the straight between its ends. */
function isOff(a: Float64Array, middle: Float64Array, b: Float64Array): boolean {
  for (const end of [1, 4]) {
    let sum = 0;
    for (let axis = 0; axis < 3; axis++) {
      const apart = middle[end + axis]! - (a[end + axis]! + b[end + axis]!) / 2;
      sum += apart * apart;
    }
    if (sum > MOST_ERROR * MOST_ERROR) return true;
  }
  return false;
}
