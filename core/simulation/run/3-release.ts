import { layout } from '../../kernels/index.ts';
import type { Midwife, BirthStep } from './2-births.ts';
import { grown } from '../values/grown.ts';
import type { Reading } from '../values/reading.ts';
import type { Running } from './running.ts';
import type { FrontReader } from '../fronts/front.ts';

/** Holds particles where they were born until a front has passed them, and frees them at that very instant. */
export class Releaser {
  readonly #local = new Float64Array(3);
  readonly #rest = new Float64Array(3);
  /** Indices of those freed in the present step, and the shares of the step. */
  freed: Uint32Array = new Uint32Array(64);
  shares = new Float64Array(64);
  count = 0;

  /**
   * To be called after births, before forces act. Whoever is held has ridden to the end of the step; those that the front
   * reaches in it leave at that instant, as the newborn do.
   */
  release(running: Running, front: FrontReader, midwife: Midwife, step: BirthStep, reading: Reading): void {
    this.count = 0;
    const { population } = running;
    const { flags, birthStep, birthFraction, velocity } = population;
    front.pose(step.from, step.to);
    for (let i = 0; i < population.count; i++) {
      if ((flags[i]! & (layout.IS_HELD | layout.IS_DEAD)) !== layout.IS_HELD) continue;
      const born = birthStep[i] === step.step ? birthFraction[i]! : 0;
      const share = this.#passedAt(running, front, i, born);
      if (share < 0) {
        // It lives from the end of this step on, so that nothing moves or ages it in between.
        birthStep[i] = step.step + 1;
        birthFraction[i] = 0;
        for (let axis = 0; axis < 3; axis++) velocity[axis]![i] = 0;
        continue;
      }
      this.freed = grown(this.freed, this.count + 1);
      this.shares = grown(this.shares, this.count + 1);
      this.freed[this.count] = i;
      this.shares[this.count++] = share;
      midwife.free(running, step, reading, i, share);
    }
  }

  /** Share of the step at which the front passes particle `i`; −1 when it does not. */
  #passedAt({ compiled, population }: Running, front: FrontReader, i: number, born: number): number {
    const { from, position, spot, spotSecond, spotThird } = population;
    const local = this.#local;
    front.localInto(local, true, position[0][i]!, position[1][i]!, position[2][i]!);
    const end = front.distance(local, true);
    if (front.isOutOfReach(end)) return -1;
    const rest = this.#rest;
    const { source } = compiled;
    if (source.restInto) source.restInto(rest, spot[i]!, spotSecond[i]!, spotThird[i]!);
    else rest.set(local);
    const rags = front.raggednessAt(rest[0]!, rest[1]!, rest[2]!);
    front.localInto(local, false, from[0][i]!, from[1][i]!, from[2][i]!);
    const share = front.reaches(front.distance(local, false) + rags, end + rags);
    return share <= 0 ? (share < 0 ? -1 : born) : Math.max(born, Math.min(0.99999, share));
  }
}
