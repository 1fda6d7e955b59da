import { motionInto, moveDirection, MOTION_WORDS, movePoint, RIGID_WORDS } from '../../maths/index.ts';
import type { EffectClock } from '../time/clock.ts';
import { grown } from '../values/grown.ts';
import { newReading, setTime, type Reading } from '../values/reading.ts';
import type { Population } from './population.ts';
import type { CompiledLayer } from '../compile/plan.ts';

/** Riders whose places are remembered from step to step; of more, the rest are looked up at both ends. */
const MOST_REMEMBERED = 131_072;

/** Where each rider's carrier stood at the end of the last step: where it stands at the start of this one, to the bit. */
class Places {
  time = NaN;
  count = 0;
  /** Packed rigid places, and whose they are: places in the list change hands when the dead are cleared away. */
  places = new Float64Array(0);
  keys = new Uint32Array(0);

  reserve(count: number): void {
    this.keys = grown(this.keys, count);
    this.places = grown(this.places, this.keys.length * RIGID_WORDS);
  }
}

/** Whether a layer's particles may be taken along with what they were born on. */
export const ridesAlong = ({ ride, source, front }: CompiledLayer): boolean =>
  source.rides !== 'nothing' && source.canBear && (ride !== null || front !== null);

/** Share of its carrier's motion that the particle of a reading goes with, 0..1. */
export const rideOf = ({ ride }: CompiledLayer, reading: Reading): number => (ride ? ride.read(reading) / 100 : 0);

/** What rides are read at: the start of a step. */
export interface RidingStep {
  readonly step: number;
  readonly from: number;
  readonly to: number;
  readonly rate: number;
  readonly clock: EffectClock;
  readonly dials: Reading['dials'];
}

/** Takes particles along with what they were born on. Keeps its own room. */
export class Rider {
  readonly #before = new Float64Array(RIGID_WORDS);
  readonly #after = new Float64Array(RIGID_WORDS);
  readonly #motion = new Float64Array(MOTION_WORDS);
  readonly #reading = newReading();
  #remembered = new WeakMap<Population, Places>();

  /** The document or the stage has changed: nothing stands where it stood. */
  forget(): void {
    this.#remembered = new WeakMap();
  }

  #placesOf(population: Population): Places {
    let places = this.#remembered.get(population);
    if (!places) this.#remembered.set(population, (places = new Places()));
    places.reserve(Math.min(MOST_REMEMBERED, population.count));
    return places;
  }

  /** Takes every living particle along from the step's start to its end, by the layer's ride, before forces act. */
  rideAlong(layer: CompiledLayer, population: Population, moment: RidingStep): void {
    const { source, front } = layer;
    const { from, to } = moment;
    const { count, key, spot, spotSecond, spotThird, position, velocity } = population;
    if (count === 0 || !ridesAlong(layer)) return;
    this.#begin(layer, moment);
    if (source.rides === 'whole') return this.#rideWhole(layer, population, moment);
    const before = this.#before;
    const after = this.#after;
    const motion = this.#motion;
    const remembered = this.#placesOf(population);
    const { places, keys } = remembered;
    const known = remembered.time === from ? remembered.count : 0;
    const kept = Math.min(count, keys.length);
    for (let i = 0; i < count; i++) {
      if (population.isOnItsOwn(i)) {
        if (i < kept) keys[i] = ~key[i]!;
        continue;
      }
      const isKnown = i < known && keys[i] === key[i];
      // What is held goes all the way with what it was born on.
      const share = front && population.isHeld(i) ? 1 : this.#shareOf(layer, population, i, moment);
      if (share === 0) {
        if (i < kept) keys[i] = ~key[i]!;
        continue;
      }
      const o = i * RIGID_WORDS;
      if (isKnown) for (let k = 0; k < RIGID_WORDS; k++) before[k] = places[o + k]!;
      else source.carrierInto(before, 0, from, spot[i]!, spotSecond[i]!, spotThird[i]!);
      source.carrierInto(after, 0, to, spot[i]!, spotSecond[i]!, spotThird[i]!);
      if (i < kept) {
        for (let k = 0; k < RIGID_WORDS; k++) places[o + k] = after[k]!;
        keys[i] = key[i]!;
      }
      motionInto(motion, before, after, share);
      movePoint(motion, position, i);
      moveDirection(motion, velocity, i);
    }
    remembered.time = to;
    remembered.count = kept;
  }

  #begin(layer: CompiledLayer, { clock, from, dials }: RidingStep): void {
    const reading = this.#reading;
    setTime(reading, clock, from);
    reading.dials = dials;
    reading.channels = layer.channels;
    reading.around = layer.around;
  }

  #shareOf(layer: CompiledLayer, population: Population, i: number, { step, from, rate, clock }: RidingStep): number {
    const { ride } = layer;
    if (ride && !ride.isConstant)
      population.readInto(this.#reading, i, step, rate, clock.standingAge(from), clock.length);
    return rideOf(layer, this.#reading);
  }

  /** All ride on one carrier. */
  #rideWhole(layer: CompiledLayer, population: Population, moment: RidingStep): void {
    const { source, front } = layer;
    const { from, to } = moment;
    const { count, position, velocity } = population;
    source.carrierInto(this.#before, 0, from, 0, 0, 0);
    source.carrierInto(this.#after, 0, to, 0, 0, 0);
    let known = -1;
    for (let i = 0; i < count; i++) {
      if (population.isOnItsOwn(i)) continue;
      const share = front && population.isHeld(i) ? 1 : this.#shareOf(layer, population, i, moment);
      if (share === 0) continue;
      if (share !== known) motionInto(this.#motion, this.#before, this.#after, share);
      known = share;
      movePoint(this.#motion, position, i);
      moveDirection(this.#motion, velocity, i);
    }
  }
}
