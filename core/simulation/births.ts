import { keyOf, MOTION_WORDS, motionInto, moveDirection, movePoint, RIGID_WORDS, hash2 } from '../maths/index.ts';
import type { EffectClock } from './clock.ts';
import type { CompiledLayer } from './compiled.ts';
import { DueList, type Travel } from './due.ts';
import { openInto, turnedInto } from './launch.ts';
import type { Population } from './population.ts';
import type { Reading } from './reader.ts';
import type { Scene } from './scene.ts';
import { AT, BIRTH_WORDS, CARRIER, COLOUR, SPOT, type BirthAsk } from './sources/index.ts';

/** The death step of what lives as long as the effect does, until that ends. */
export const NEVER = 0x7fffffff;

/** Seconds over which a carrier's own velocity is measured. */
const LOOK_BACK_SECONDS = 1 / 960;

export interface BirthStep {
  readonly step: number;
  /** Whether this is the first step that is computed at all. */
  readonly isFirst: boolean;
  /** Steps a second. */
  readonly rate: number;
  /** Start and end of the step, seconds. */
  readonly from: number;
  readonly to: number;
  readonly seed: number;
  readonly clock: EffectClock;
  readonly scene: Scene;
  /** Share of the births that are kept, 0 to 1. */
  readonly density: number;
  /** How many more may live in the whole world. */
  room: number;
}

/** The first step at whose start particle `i` has lived its life. */
function deathStep({ birthStep, birthFraction, life }: Population, i: number, rate: number): number {
  const seconds = life[i]!;
  const fraction = birthFraction[i]!;
  let steps = Math.ceil(seconds * rate + fraction);
  while (steps > 1 && (steps - 1 - fraction) / rate >= seconds) steps--;
  while ((steps - fraction) / rate < seconds) steps++;
  return birthStep[i]! + Math.max(1, steps);
}

/** Slot by which a lower density chooses whom it keeps. */
const SLOT_DENSITY = 0x5eed;

/** Gives birth to what is due, layer after layer; keeps its own room, so that a birth allocates nothing. */
export class Midwife {
  readonly #due = new DueList();
  readonly #birth = new Float64Array(BIRTH_WORDS);
  readonly #other = new Float64Array(BIRTH_WORDS);
  readonly #from = new Float64Array(RIGID_WORDS);
  readonly #to = new Float64Array(RIGID_WORDS);
  readonly #motion = new Float64Array(MOTION_WORDS);
  readonly #way = new Float64Array(3);

  /**
   * Gives birth to what is due in a step, each at its own instant on the pose of that instant. The rest of the step is
   * lived like any other: the newborn ride to its end here, and the kernels move them through what is left of it.
   */
  giveBirth(layer: CompiledLayer, population: Population, step: BirthStep, reading: Reading, travel: Travel): void {
    population.newbornFrom = population.count;
    if (!layer.source.canBear) return;
    const { clock } = step;
    const due = this.#due;
    reading.effectTime = clock.share(step.from);
    due.collect(layer, reading, step, travel);
    const ask: BirthAsk = { key: 0, number: 0, time: 0, reading };
    const lineage = hash2(step.seed, layer.layer.salt);
    for (let n = 0; n < due.count; n++) {
      ask.time = due.times[n]!;
      ask.number = population.numbered++;
      ask.key = reading.key = keyOf(lineage, ask.number);
      reading.effectTime = clock.share(ask.time);
      if (step.density < 1 && hash2(ask.key, SLOT_DENSITY) / 4294967296 >= step.density) continue;
      this.#bear(layer, population, step, ask, due.standing[n] === 1);
    }
  }

  #bear(layer: CompiledLayer, population: Population, step: BirthStep, ask: BirthAsk, isStanding: boolean): void {
    const { numbers, source, ride } = layer;
    const { reading, key } = ask;
    const birth = this.#birth;
    source.bearInto(birth, ask);
    const below = numbers['source.below'].read(reading);
    if (below > 0 && !(birth[AT + 1]! < below)) return;
    if (population.living >= population.cap || step.room <= 0 || population.count >= population.places) {
      population.refused++;
      return;
    }
    const i = population.count++;
    const share = Math.min(0.99999, Math.max(0, (ask.time - step.from) / (step.to - step.from)));
    if (layer.isOnGround) birth[AT + 1] = 0;
    this.#launch(layer, ask, birth);
    for (let axis = 0; axis < 3; axis++) {
      population.position[axis]![i] = birth[AT + axis]!;
      population.velocity[axis]![i] = this.#way[axis]!;
      population.from[axis]![i] = birth[AT + axis]!;
    }
    population.spot[i] = birth[SPOT]!;
    population.spotSecond[i] = birth[SPOT + 1]!;
    population.spotThird[i] = birth[SPOT + 2]!;
    if (source.rides === 'spot' && !layer.isOnGround) this.#drawOnSkin(layer, population, i, share, step);
    if (ride > 0) {
      for (let k = 0; k < RIGID_WORDS; k++) this.#from[k] = birth[CARRIER + k]!;
      source.carrierInto(this.#to, 0, step.to, birth[SPOT]!, population.spotSecond[i]!, population.spotThird[i]!);
      motionInto(this.#motion, this.#from, this.#to, ride);
      movePoint(this.#motion, population.position, i);
      moveDirection(this.#motion, population.velocity, i);
    }
    population.birthStep[i] = step.step;
    population.birthFraction[i] = share;
    population.life[i] = isStanding ? 0 : numbers['births.life'].read(reading);
    population.deathStep[i] = isStanding ? NEVER : deathStep(population, i, step.rate);
    population.flags[i] = 0;
    population.key[i] = key;
    population.number[i] = ask.number;
    for (let c = 0; c < 3; c++) population.tint[c]![i] = layer.takesColour ? birth[COLOUR + c]! : 1;
    population.born++;
    step.room--;
  }

  /** Writes the velocity a particle leaves with. */
  #launch(layer: CompiledLayer, ask: BirthAsk, birth: Float64Array): void {
    const { numbers, source } = layer;
    const { reading, key, time } = ask;
    const way = this.#way;
    if (layer.isOnGround) birth.set(UPRIGHT, 6);
    layer.launch.directionInto(way, birth, key, time, numbers['motion.angle'].read(reading));
    openInto(way, numbers['motion.opening'].read(reading), key);
    const speed = numbers['motion.speed'].read(reading);
    const [vx, vy, vz] = layer.velocityBeside;
    for (let axis = 0; axis < 3; axis++) way[axis]! *= speed;
    if (vx !== 0 || vy !== 0 || vz !== 0) {
      turnedInto(this.#other, birth, CARRIER, layer.velocityBeside);
      for (let axis = 0; axis < 3; axis++) way[axis]! += this.#other[axis]!;
    }
    const kept = numbers['motion.inherit'].read(reading) / 100;
    if (kept === 0) return;
    // How fast what it is born on moves at that instant.
    const before = Math.max(layer.beginsAt, time - LOOK_BACK_SECONDS);
    const [spot, second, third] = [birth[SPOT]!, birth[SPOT + 1]!, birth[SPOT + 2]!];
    source.carrierInto(this.#from, 0, before, spot, second, third);
    source.carrierInto(this.#to, 0, before + LOOK_BACK_SECONDS, spot, second, third);
    motionInto(this.#motion, this.#from, this.#to, 1);
    const point = ONE_POINT;
    for (let axis = 0; axis < 3; axis++) point[axis]![0] = birth[AT + axis]!;
    movePoint(this.#motion, point, 0);
    for (let axis = 0; axis < 3; axis++)
      way[axis]! += ((point[axis]![0]! - birth[AT + axis]!) / LOOK_BACK_SECONDS) * kept;
  }

  /** A newborn on skin is first drawn on its spot between the two poses that the stage blends, not on the true one. */
  #drawOnSkin(layer: CompiledLayer, population: Population, i: number, share: number, step: BirthStep): void {
    const { source } = layer;
    const [spot, second, third] = [population.spot[i]!, population.spotSecond[i]!, population.spotThird[i]!];
    source.carrierInto(this.#from, 0, step.from, spot, second, third);
    source.carrierInto(this.#to, 0, step.to, spot, second, third);
    for (let axis = 0; axis < 3; axis++) {
      const true_ = this.#birth[CARRIER + 4 + axis]!;
      const drawn = this.#from[4 + axis]! + (this.#to[4 + axis]! - this.#from[4 + axis]!) * share;
      population.from[axis]![i] = this.#birth[AT + axis]! + (drawn - true_);
    }
  }
}

const UPRIGHT = [0, 1, 0];
/** Room for one point in double precision. */
const ONE_POINT = [new Float64Array(1), new Float64Array(1), new Float64Array(1)] as const;
