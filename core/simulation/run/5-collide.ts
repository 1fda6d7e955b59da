import { layout } from '../../kernels/index.ts';
import { draw } from '../../maths/index.ts';
import type { Population } from './population.ts';
import { newReading, type Reading, setTime } from '../values/reading.ts';
import { AT, NORMAL, SPOT, VELOCITY } from '../surfaces/body.ts';
import { Contacts, GAP } from './contacts.ts';
import type { EffectClock } from '../time/clock.ts';
import type { Hits } from './hits.ts';
import type { CompiledLayer, BoundSurface } from '../compile/plan.ts';

export interface CollidingStep {
  readonly step: number;
  readonly from: number;
  readonly to: number;
  readonly rate: number;
  readonly clock: EffectClock;
  readonly dials: Reading['dials'];
}

interface Met {
  readonly hard: readonly BoundSurface[];
  readonly keeping: readonly BoundSurface[];
}

/** A particle's flags without the surface it sticks to. */
const FLAG_BITS = (1 << layout.STUCK_SHIFT) - 1;

const number1 = new Float32Array(1);
const word1 = new Uint32Array(number1.buffer);

/** A layer's particles meet the surfaces: after forces have moved them, before anybody reads where they are. */
export class Collider {
  readonly #contacts = new Contacts();
  readonly #reading = newReading();
  /** Velocities before forces acted. */
  #before: [Float32Array, Float32Array, Float32Array] = [
    new Float32Array(0),
    new Float32Array(0),
    new Float32Array(0),
  ];
  #surfaces: readonly BoundSurface[] = [];
  readonly #met = new Map<string, Met | null>();
  #posedTo = NaN;

  take(surfaces: readonly BoundSurface[]): void {
    this.#surfaces = surfaces;
    this.#met.clear();
    this.#posedTo = NaN;
  }

  /** Poses every surface as it is at one instant, and returns them. */
  posedAt(time: number): readonly BoundSurface[] {
    for (const { body } of this.#surfaces) body.pose(time, time);
    this.#posedTo = NaN;
    return this.#surfaces;
  }

  /** The surfaces that a layer meets, and those that keep it; null where there are none. */
  #metBy(layerId: string): Met | null {
    const known = this.#met.get(layerId);
    if (known !== undefined) return known;
    const own = this.#surfaces.filter(({ layers }) => layers.includes(layerId));
    const hard = own.filter(({ act }) => act !== 'keep');
    const made = own.length > 0 ? { hard, keeping: own.filter(({ act }) => act === 'keep') } : null;
    this.#met.set(layerId, made);
    return made;
  }

  /** To be called before forces act. */
  keepVelocities(layer: CompiledLayer, { velocity, count }: Population): void {
    if (!this.#metBy(layer.id)) return;
    for (let axis = 0; axis < 3; axis++) {
      if (this.#before[axis]!.length < count) this.#before[axis] = new Float32Array(Math.ceil(count * 1.25));
      this.#before[axis]!.set(velocity[axis]!.subarray(0, count));
    }
  }

  /** Moves on whoever met something; `hits` then holds the impacts. */
  collide(layer: CompiledLayer, population: Population, hits: Hits, moment: CollidingStep): void {
    hits.count = 0;
    const met = this.#metBy(layer.id);
    if (!met || population.count === 0) return;
    if (this.#posedTo !== moment.to) for (const { body } of this.#surfaces) body.pose(moment.from, moment.to);
    this.#posedTo = moment.to;
    const reading = this.#reading;
    reading.dials = moment.dials;
    reading.channels = layer.channels;
    reading.around = layer.around;
    setTime(reading, moment.clock, moment.from);
    for (const { now, share, within } of this.#surfaces) {
      now.share = share.read(reading) / 100;
      const metres = within.read(reading);
      now.within = metres > 0 ? metres : Infinity;
    }
    const { hard, keeping } = met;
    const { flags } = population;
    for (let i = 0; i < population.count; i++) {
      const flag = flags[i]!;
      if (flag & layout.IS_DEAD) continue;
      if (flag >>> layout.STUCK_SHIFT) {
        this.#hold(population, i);
        continue;
      }
      if (hard.length > 0 && this.#isNear(hard, population, i)) this.#follow(hard, population, i, hits, moment);
      for (const surface of keeping) this.#keep(surface, population, i);
    }
  }

  /** Whether the way of particle `i` through the step comes near the box of any surface. */
  #isNear(surfaces: readonly BoundSurface[], { from, position }: Population, i: number): boolean {
    for (const { body } of surfaces) {
      const { box } = body;
      let isApart = false;
      for (let axis = 0; axis < 3 && !isApart; axis++) {
        const a = from[axis]![i]!;
        const b = position[axis]![i]!;
        isApart = (a < b ? b : a) < box[axis]! - GAP || (a < b ? a : b) > box[3 + axis]! + GAP;
      }
      if (!isApart) return true;
    }
    return false;
  }

  /** Follows particle `i` through its step from contact to contact. */
  #follow(
    surfaces: readonly BoundSurface[],
    population: Population,
    i: number,
    hits: Hits,
    moment: CollidingStep,
  ): void {
    const { from, position, velocity, birthStep, birthFraction, deathStep } = population;
    const { start, end, velocity: speed, push, beside } = this.#contacts;
    const born = birthStep[i] === moment.step ? birthFraction[i]! : 0;
    const reading = this.#reading;
    const { clock } = moment;
    for (let axis = 0; axis < 3; axis++) {
      start[axis] = from[axis]![i]!;
      end[axis] = position[axis]![i]!;
    }
    const surface = this.#contacts.first(surfaces, population.key[i]!, born);
    if (!surface) return;
    population.readInto(reading, i, moment.step, moment.rate, clock.standingAge(moment.from), clock.length);
    const seconds = moment.to - moment.from;
    const lived = (1 - born) * seconds;
    for (let axis = 0; axis < 3; axis++) {
      const [before, after] = [this.#before[axis]![i]!, velocity[axis]![i]!];
      push[axis] = lived > 0 ? (after - before) / lived : 0;
      beside[axis] = lived > 0 ? (end[axis]! - start[axis]!) / lived - (before + after) / 2 : 0;
      speed[axis] = after;
    }
    const outcome = this.#contacts.follow(surface, surfaces, i, reading, seconds, hits);
    if (outcome === 'stuck') return this.#stick(population, i);
    if (outcome === 'died') deathStep[i] = moment.step + 1;
    const place = outcome === 'died' ? start : end;
    for (let axis = 0; axis < 3; axis++) {
      position[axis]![i] = place[axis]!;
      velocity[axis]![i] = speed[axis]!;
    }
  }

  /** From now on particle `i` is where the spot it met last is. */
  #stick(population: Population, i: number): void {
    const { contact, met } = this.#contacts;
    const number = this.#surfaces.indexOf(met!) + 1;
    population.flags[i] = (population.flags[i]! & FLAG_BITS) | (number << layout.STUCK_SHIFT);
    number1[0] = contact[SPOT]!;
    population.spot[i] = word1[0]!;
    population.spotSecond[i] = contact[SPOT + 1]!;
    population.spotThird[i] = contact[SPOT + 2]!;
    this.#hold(population, i);
  }

  /** A particle that sticks is where its spot is, whatever pushes it. */
  #hold(population: Population, i: number): void {
    const surface = this.#surfaces[(population.flags[i]! >>> layout.STUCK_SHIFT) - 1];
    if (!surface) {
      population.flags[i]! &= FLAG_BITS;
      return;
    }
    const { contact } = this.#contacts;
    word1[0] = population.spot[i]!;
    surface.body.holdInto(contact, number1[0]!, population.spotSecond[i]!, population.spotThird[i]!);
    const gap = surface.side === 'inside' ? -GAP : GAP;
    for (let axis = 0; axis < 3; axis++) {
      population.position[axis]![i] = contact[AT + axis]! + contact[NORMAL + axis]! * gap;
      population.velocity[axis]![i] = contact[VELOCITY + axis]!;
    }
  }

  /** Puts particle `i` at its distance off the nearest spot of a surface; it moves along it, and with it. */
  #keep(surface: BoundSurface, population: Population, i: number): void {
    const { body, offset, shareSlot } = surface;
    const { share, within } = surface.now;
    const { position, velocity, key } = population;
    if (share < 1 && draw(key[i]!, shareSlot) >= share) return;
    const { contact: best } = this.#contacts;
    const distance = body.nearestInto(best, position[0][i]!, position[1][i]!, position[2][i]!, within);
    if (distance === Infinity) return;
    let away = 0;
    for (let axis = 0; axis < 3; axis++)
      away += (velocity[axis]![i]! - best[VELOCITY + axis]!) * best[NORMAL + axis]!;
    for (let axis = 0; axis < 3; axis++) {
      position[axis]![i] = best[AT + axis]! + best[NORMAL + axis]! * offset;
      velocity[axis]![i]! -= away * best[NORMAL + axis]!;
    }
  }
}
