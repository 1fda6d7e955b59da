import {
  keyOf,
  MOTION_WORDS,
  motionInto,
  moveDirection,
  movePoint,
  packDirection,
  RIGID_WORDS,
  hash2,
} from '../../maths/index.ts';
import type { EffectClock } from '../time/clock.ts';
import { layout } from '../../kernels/index.ts';
import { DueList, LEADS, STANDS } from './due.ts';
import { openInto, turnedInto } from '../sources/launch.ts';
import { type Population, NEVER } from './population.ts';
import { newReading, type Reading, setTime } from '../values/reading.ts';
import type { Running } from './running.ts';
import type { Scene } from '../scene/scene.ts';
import {
  AT,
  BIRTH_WORDS,
  CARRIER,
  COLOUR,
  NORMAL,
  SPOT,
  STRENGTH,
  UV,
  VELOCITY,
  givenInto,
  type BirthAsk,
} from '../sources/source.ts';
import { rideOf } from './1-ride.ts';
import { beginReading, deathStep, NO_FIELDS, uprightInto } from './newborn.ts';
import { pointInto } from '../sources/particles.ts';
import {
  AT as LINK_AT,
  COLOUR as LINK_COLOUR,
  COLOUR_SHARE,
  KEY,
  NORMAL as LINK_NORMAL,
  CHANNELS,
  CHANNEL_MASK,
  CHANNEL_SHARE,
  ORDINAL,
  ROW,
  SIZE,
  SIZE_SHARE,
  UNIT,
  UNITS,
  VELOCITY as LINK_VELOCITY,
} from './inbox.ts';
import type { CompiledLayer } from '../compile/plan.ts';

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
  /** How many more may live in the whole world. */
  room: number;
}

/** Slot by which a lower tier chooses whom it keeps. */
const SLOT_KEPT = 0x5eed;

/** Gives birth to what is due, layer after layer; keeps its own room, so that a birth allocates nothing. */
export class Midwife {
  readonly #due = new DueList();
  readonly #birth = new Float64Array(BIRTH_WORDS);
  readonly #other = new Float64Array(BIRTH_WORDS);
  readonly #from = new Float64Array(RIGID_WORDS);
  readonly #to = new Float64Array(RIGID_WORDS);
  readonly #motion = new Float64Array(MOTION_WORDS);
  readonly #way = new Float64Array(3);
  readonly #rgb = new Float64Array(3);
  readonly #about = new Float64Array(RIGID_WORDS);
  /** Where the newborn's channels begin: a field of one place for each. */
  readonly #begun: Float32Array[] = [];
  readonly #beside = new Float64Array(3);
  readonly #given = { u: 0, v: 0, brightness: 1, strength: 1 };
  readonly #ask: BirthAsk = {
    key: 0,
    number: 0,
    time: 0,
    share: 0,
    reading: newReading(),
    about: null,
    event: 0,
  };

  /**
   * Gives birth to what is due in a step, of the layer's own and of links, each at its own instant on the pose of that
   * instant. The rest of the step is lived like any other: the newborn ride to its end here, and the kernels move them
   * through what is left of it.
   */
  giveBirth(running: Running, step: BirthStep, reading: Reading): void {
    const { compiled: layer, population, travel, inbox } = running;
    const { clock } = step;
    const due = this.#due;
    population.newbornFrom = population.count;
    // Where a front frees particles anywhere in the list, none is known to live the whole step.
    population.evenTo = layer.front ? 0 : population.count;
    setTime(reading, clock, step.from);
    beginReading(reading, layer);
    const { canBear, needsParents } = layer.source;
    if (canBear || needsParents) due.collect(layer, reading, step, travel);
    if (!canBear) {
      if (needsParents) population.lost += due.count;
      due.count = 0;
    }
    inbox.open(step.step);
    const lineage = hash2(step.seed, layer.layer.salt);
    let linked = 0;
    for (let n = 0; n < due.count || linked < inbox.dueCount;) {
      const own = n < due.count ? shareOf(due.times[n]!, step) : Infinity;
      const row = linked < inbox.dueCount ? inbox.due[linked]! * ROW : -1;
      const isOwn = row < 0 || own <= inbox.rows[row + UNIT]! / UNITS;
      if (isOwn) this.#bearOwn(running, step, reading, lineage, n++);
      else {
        this.#bearLinked(running, step, reading, row);
        linked++;
      }
    }
    inbox.close(step.step);
  }

  #bearOwn(running: Running, step: BirthStep, reading: Reading, lineage: number, n: number): void {
    const { population } = running;
    const ask = this.#ask;
    ask.reading = reading;
    ask.time = this.#due.times[n]!;
    ask.share = shareOf(ask.time, step);
    ask.about = null;
    ask.event = this.#due.events[n]!;
    ask.number = population.numbered++;
    ask.key = reading.key = reading.particle = keyOf(lineage, ask.number);
    setTime(reading, step.clock, ask.time);
    const { kept } = running.compiled;
    const marks = this.#due.marks[n]!;
    // Of several at once the first is kept: what comes alone is not left out.
    if (kept < 1 && (marks & LEADS) === 0 && hash2(ask.key, SLOT_KEPT) / 4294967296 >= kept) return;
    this.#startBirth();
    this.#beginChannels(running.compiled, 0);
    running.compiled.source.bearInto(this.#birth, ask);
    this.#placeReading(running.compiled, 0);
    const i = this.#admit(running, step);
    if (i < 0) return;
    // What is held lives its own life once it is free.
    const isHeld = running.compiled.front !== null;
    this.#bear(running, step, i, (marks & STANDS) !== 0 && !isHeld, isHeld ? 1 : rideOf(running.compiled, reading));
    if (isHeld) this.#hold(population, i);
    this.#dress(running.compiled, population, i, 0);
  }

  /** From its birth on it is held: it has a life, but does not live it yet. */
  #hold(population: Population, i: number): void {
    population.flags[i]! |= layout.IS_HELD;
    population.deathStep[i] = NEVER;
  }

  /** Lets a held particle go at a share of the step, from where it is then, as if it were born there. */
  free(running: Running, step: BirthStep, reading: Reading, i: number, share: number): void {
    const { compiled, population } = running;
    const ask = this.#ask;
    const before = [population.from[0][i]!, population.from[1][i]!, population.from[2][i]!];
    ask.reading = reading;
    ask.share = share;
    ask.time = step.clock.instant(step.from, share);
    ask.about = null;
    ask.key = reading.key = reading.particle = population.key[i]!;
    ask.number = population.number[i]!;
    beginReading(reading, compiled);
    reading.begun = population.begun;
    reading.place = i;
    setTime(reading, step.clock, ask.time);
    this.#startBirth();
    const birth = this.#birth;
    compiled.source.bearInto(birth, ask);
    [reading.x, reading.y, reading.z] = [birth[AT]!, birth[AT + 1]!, birth[AT + 2]!];
    const wasSeen = population.birthStep[i] !== step.step;
    this.#bear(running, step, i, false, rideOf(compiled, reading));
    if (!wasSeen) return;
    population.flags[i]! |= layout.WAS_HELD;
    for (let axis = 0; axis < 3; axis++) population.from[axis]![i] = before[axis]!;
  }

  /** A birth that a link has set off: about the place of the event, upright on the surface that was hit. */
  #bearLinked(running: Running, step: BirthStep, reading: Reading, row: number): void {
    const { compiled, population, inbox } = running;
    const { rows } = inbox;
    const ask = this.#ask;
    const about = this.#about;
    const birth = this.#birth;
    ask.reading = reading;
    ask.share = rows[row + UNIT]! / UNITS;
    ask.time = step.clock.instant(step.from, ask.share);
    ask.key = reading.key = reading.particle = rows[row + KEY]!;
    ask.number = rows[row + ORDINAL]!;
    ask.about = about;
    setTime(reading, step.clock, ask.time);
    this.#startBirth();
    this.#beginChannels(compiled, row, rows);
    for (let axis = 0; axis < 3; axis++) {
      about[4 + axis] = rows[row + LINK_AT + axis]!;
      birth[AT + axis] = rows[row + LINK_AT + axis]!;
      birth[VELOCITY + axis] = rows[row + LINK_VELOCITY + axis]!;
    }
    uprightInto(about, rows[row + LINK_NORMAL]!, rows[row + LINK_NORMAL + 1]!, rows[row + LINK_NORMAL + 2]!);
    if (compiled.source.rides === 'whole' && compiled.source.canBear) compiled.source.bearInto(birth, ask);
    else pointInto(birth);
    const nx = rows[row + LINK_NORMAL]!;
    const ny = rows[row + LINK_NORMAL + 1]!;
    const nz = rows[row + LINK_NORMAL + 2]!;
    if (nx !== 0 || ny !== 0 || nz !== 0) birth.set([nx, ny, nz], NORMAL);
    this.#placeReading(compiled, row, rows);
    const i = this.#admit(running, step);
    if (i < 0) return;
    this.#bear(running, step, i, false, rideOf(compiled, reading));
    this.#dress(compiled, population, i, row, rows);
  }

  /** What a birth has of a mesh, a parent or a blow where it is born of none. */
  #startBirth(): void {
    const birth = this.#birth;
    birth.fill(0, UV, BIRTH_WORDS);
    birth.fill(1, COLOUR, COLOUR + 3);
    birth[STRENGTH] = 1;
  }

  /** Sets the reading to what the newborn carries in its channels, of its own and passed on. */
  #beginChannels({ channels }: CompiledLayer, row: number, rows?: Float64Array): void {
    const { reading, key } = this.#ask;
    reading.begun = NO_FIELDS;
    reading.place = 0;
    if (!channels.isKept) return;
    const begun = channels.roomFor(this.#begun);
    const mask = rows ? rows[row + CHANNEL_MASK]! : 0;
    const passed = rows ? rows[row + CHANNEL_SHARE]! : 0;
    channels.keep(begun, 0, key, this.#given, rows ?? NOTHING, row + CHANNELS, mask, passed);
    reading.begun = begun;
  }

  /** Sets the reading to where the newborn is, and to what it has of what it is born on. */
  #placeReading(layer: CompiledLayer, row: number, rows?: Float64Array): void {
    const { reading } = this.#ask;
    [reading.x, reading.y, reading.z] = [this.#birth[AT]!, this.#birth[AT + 1]!, this.#birth[AT + 2]!];
    if (!layer.channels.takes) return;
    givenInto(this.#given, this.#birth);
    this.#beginChannels(layer, row, rows);
  }

  /** A place for the birth at hand; −1 where it may not be, or is refused. */
  #admit({ compiled, population }: Running, step: BirthStep): number {
    if (compiled.kept === 0) return -1;
    const below = compiled.numbers['source.below'].read(this.#ask.reading);
    if (below > 0 && !(this.#birth[AT + 1]! < below)) return -1;
    if (population.living >= population.cap || step.room <= 0 || population.count >= population.places) {
      population.refused++;
      return -1;
    }
    population.born++;
    step.room--;
    return population.count++;
  }

  #bear(
    { compiled: layer, population }: Running,
    step: BirthStep,
    i: number,
    isStanding: boolean,
    ride: number,
  ): void {
    const { numbers, source } = layer;
    const ask = this.#ask;
    const birth = this.#birth;
    const share = ask.share;
    const isLoose = source.rides === 'nothing' || (ask.about !== null && source.rides !== 'whole');
    if (layer.isOnGround) birth[AT + 1] = 0;
    this.#launch(layer, ask, birth, isLoose);
    for (let axis = 0; axis < 3; axis++) {
      population.position[axis]![i] = birth[AT + axis]!;
      population.velocity[axis]![i] = this.#way[axis]!;
      population.from[axis]![i] = birth[AT + axis]!;
    }
    population.spot[i] = birth[SPOT]!;
    population.spotSecond[i] = birth[SPOT + 1]!;
    population.spotThird[i] = birth[SPOT + 2]!;
    if (source.rides === 'spot' && !isLoose && !layer.isOnGround) this.#drawOnSkin(layer, population, i, share, step);
    if (ride > 0 && !isLoose) {
      for (let k = 0; k < RIGID_WORDS; k++) this.#from[k] = birth[CARRIER + k]!;
      source.carrierInto(this.#to, 0, step.to, birth[SPOT]!, population.spotSecond[i]!, population.spotThird[i]!);
      motionInto(this.#motion, this.#from, this.#to, ride);
      movePoint(this.#motion, population.position, i);
      moveDirection(this.#motion, population.velocity, i);
    }
    population.birthStep[i] = step.step;
    population.birthFraction[i] = share;
    population.life[i] = isStanding ? 0 : numbers['births.life'].read(ask.reading);
    population.deathStep[i] = isStanding ? NEVER : deathStep(population, i, step.rate);
    population.flags[i] = isLoose ? layout.IS_LOOSE : 0;
    population.travelled[i] = 0;
    population.facing[i] = packDirection(birth[NORMAL]!, birth[NORMAL + 1]!, birth[NORMAL + 2]!);
    population.key[i] = ask.key;
    population.number[i] = ask.number;
  }

  /** Writes the colour and the size a particle begins with, where it does not draw them anew for every picture. */
  #dress(layer: CompiledLayer, population: Population, i: number, row: number, rows?: Float64Array): void {
    const { tint, scale } = population;
    if (layer.channels.isKept)
      for (let n = 0; n < population.begun.length; n++) population.begun[n]![i] = this.#begun[n]![0]!;
    const rgb = this.#rgb;
    scale[i] = 1;
    if (layer.takesColour) for (let c = 0; c < 3; c++) rgb[c] = this.#birth[COLOUR + c]!;
    else if (layer.isGivenColour) layer.colour.baseInto(this.#ask.key, rgb);
    else rgb[0] = rgb[1] = rgb[2] = 1;
    const share = rows ? rows[row + COLOUR_SHARE]! : 0;
    for (let c = 0; c < 3; c++)
      tint[c]![i] = rgb[c]! + (share > 0 ? (rows![row + LINK_COLOUR + c]! - rgb[c]!) * share : 0);
    if (!rows || !(rows[row + SIZE_SHARE]! > 0)) return;
    const size = layer.numbers['life.size'].base(this.#ask.key);
    if (size > 0) scale[i] = 1 + (rows[row + SIZE]! / size - 1) * rows[row + SIZE_SHARE]!;
  }

  /** Writes the velocity a particle leaves with. */
  #launch(layer: CompiledLayer, ask: BirthAsk, birth: Float64Array, isLoose: boolean): void {
    const { numbers, source } = layer;
    const { reading, key, time } = ask;
    const beside = this.#beside;
    const way = this.#way;
    if (layer.isOnGround) birth.set(UPRIGHT, NORMAL);
    layer.launch.directionInto(way, birth, reading, numbers['motion.angle'].read(reading));
    openInto(way, numbers['motion.opening'].read(reading), key);
    const speed = numbers['motion.speed'].read(reading);
    layer.velocityBeside.readInto(beside, reading);
    for (let axis = 0; axis < 3; axis++) way[axis]! *= speed;
    if (beside[0] !== 0 || beside[1] !== 0 || beside[2] !== 0) {
      turnedInto(this.#other, birth, CARRIER, beside);
      for (let axis = 0; axis < 3; axis++) way[axis]! += this.#other[axis]!;
    }
    // A link says itself how much velocity it passes on.
    const kept = ask.about ? 0 : numbers['motion.inherit'].read(reading) / 100;
    const passed = ask.about ? 1 : kept;
    for (let axis = 0; axis < 3; axis++) way[axis]! += birth[VELOCITY + axis]! * passed;
    if (kept === 0 || isLoose) return;
    // How fast what it is born on moves at that instant.
    const before = Math.max(layer.beginsAt, time - LOOK_BACK_SECONDS);
    const spot = birth[SPOT]!;
    const second = birth[SPOT + 1]!;
    const third = birth[SPOT + 2]!;
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
    const spot = population.spot[i]!;
    const second = population.spotSecond[i]!;
    const third = population.spotThird[i]!;
    source.carrierInto(this.#from, 0, step.from, spot, second, third);
    source.carrierInto(this.#to, 0, step.to, spot, second, third);
    for (let axis = 0; axis < 3; axis++) {
      const true_ = this.#birth[CARRIER + 4 + axis]!;
      const drawn = this.#from[4 + axis]! + (this.#to[4 + axis]! - this.#from[4 + axis]!) * share;
      population.from[axis]![i] = this.#birth[AT + axis]! + (drawn - true_);
    }
  }
}

/** Share of a step at which an instant falls: never quite the whole, which is the next one's. */
const shareOf = (time: number, { from, to }: BirthStep): number =>
  Math.min(0.99999, Math.max(0, (time - from) / (to - from)));

const NOTHING = new Float64Array(0);
const UPRIGHT = [0, 1, 0];
/** Room for one point in double precision. */
const ONE_POINT = [new Float64Array(1), new Float64Array(1), new Float64Array(1)] as const;
