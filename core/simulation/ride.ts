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
    const { ride, source } = layer;
    const { count, spot, spotSecond, spotThird, position, velocity } = population;
    let isKnown = false;
    if (ride === 0 || count === 0 || source.rides === 'nothing' || !source.canBear) return;
    const [before, after, motion] = [this.#before, this.#after, this.#motion];
    const isWhole = source.rides === 'whole';
    for (let i = 0; i < count; i++) {
      if (population.isOnItsOwn(i)) continue;
      if (!isKnown || !isWhole) {
        isKnown = true;
        source.carrierInto(before, 0, from, spot[i]!, spotSecond[i]!, spotThird[i]!);
        source.carrierInto(after, 0, to, spot[i]!, spotSecond[i]!, spotThird[i]!);
        motionInto(motion, before, after, ride);
      }
      movePoint(motion, position, i);
      moveDirection(motion, velocity, i);
    }
  }
}
