import { motionInto, moveDirection, MOTION_WORDS, movePoint, RIGID_WORDS } from '../maths/index.ts';
import type { CompiledLayer } from './compiled.ts';
import type { Population } from './population.ts';

/** Takes particles along with what they were born on. Keeps its own room. */
export class Rider {
  readonly #before = new Float64Array(RIGID_WORDS);
  readonly #after = new Float64Array(RIGID_WORDS);
  readonly #motion = new Float64Array(MOTION_WORDS);

  /** Takes every living particle along from the step's start to its end, by the layer's ride, before forces act. */
  rideAlong(layer: CompiledLayer, population: Population, from: number, to: number): void {
    const { ride, source, front } = layer;
    const { count, spot, spotSecond, spotThird, position, velocity } = population;
    if (count === 0 || source.rides === 'nothing' || !source.canBear) return;
    if (ride === 0 && !front) return;
    const before = this.#before;
    const after = this.#after;
    const motion = this.#motion;
    const isWhole = source.rides === 'whole';
    let known = -1;
    for (let i = 0; i < count; i++) {
      if (population.isOnItsOwn(i)) continue;
      // What is held goes all the way with what it was born on.
      const share = front && population.isHeld(i) ? 1 : ride;
      if (share === 0) continue;
      if (share !== known) {
        if (known < 0 || !isWhole) {
          source.carrierInto(before, 0, from, spot[i]!, spotSecond[i]!, spotThird[i]!);
          source.carrierInto(after, 0, to, spot[i]!, spotSecond[i]!, spotThird[i]!);
        }
        motionInto(motion, before, after, share);
        if (isWhole) known = share;
      }
      movePoint(motion, position, i);
      moveDirection(motion, velocity, i);
    }
  }
}
