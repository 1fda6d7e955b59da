import { decayOf, ProgramWriter, scratchSlot, type Kernels, type Three, type Value } from '../../kernels/index.ts';
import { exp, LN2, slotOf } from '../../maths/index.ts';
import type { EffectClock } from '../time/clock.ts';
import { runShared } from './crew.ts';
import { TARGET_ARRAYS, type Changes, type ForceWriter, type TargetKind } from '../forces/index.ts';
import { Constants, PROGRAM, type Scratch } from './memory.ts';
import type { Population } from './population.ts';
import { newReading, setTime, type Reading } from '../values/reading.ts';
import type { NumberReader } from '../values/numberReader.ts';
import { Progress } from '../values/rate.ts';
import type { VectorReader } from '../values/vectorReader.ts';
import type { Scene } from '../scene/scene.ts';
import type { TableMoment, Tables } from '../values/tables.ts';
import { Targets } from './targets.ts';
import type { CompiledLayer, BoundForce } from '../compile/plan.ts';

/** Scratch slots: 0 to 3 are a step's sums, the last three hold accelerations put aside; between are values. */
const FIRST_VALUE = 4;
const ASIDE = [scratchSlot(13), scratchSlot(14), scratchSlot(15)] as const;

/** A value that is written where it stands, to be read until the force at hand is written. */
type OwnValue = { -readonly [K in keyof Value]: Value[K] };

/** What a step of so many seconds takes of an excess that halves in a time; all of it where that is none. */
function shareTaken(half: number, seconds: number): number {
  return half > 0 ? 1 - exp((-LN2 * seconds) / half) : 1;
}

/** 1 / reach², or 0 for a reach of 0, which is no limit. */
function inverseReach(reach: number): number {
  return reach > 0 ? Math.fround(1 / (reach * reach)) : 0;
}

export interface MovingStep {
  readonly step: number;
  readonly from: number;
  readonly to: number;
  readonly rate: number;
  readonly clock: EffectClock;
  readonly scene: Scene;
  readonly dials: Reading['dials'];
}

/**
 * Writes and runs the program of a layer's step: velocities, accelerations and drags, the integrator, constraints. Keeps what
 * it hands to forces, so that a step makes nothing anew.
 */
export class Mover implements ForceWriter {
  time = 0;
  seconds = 0;
  step = 0;
  readonly at = new Float64Array(3);
  readonly calls: ProgramWriter;
  readonly #constants: Constants;
  readonly #targets: Targets;
  readonly #scratch: Scratch;
  readonly #tables: Tables;
  readonly #kernels: Kernels;
  readonly #buffer: ArrayBufferLike;
  readonly #helpers: number;
  readonly #worthSharing: number | undefined;
  readonly #shared = newReading();
  readonly #each = newReading();
  #moment!: MovingStep;
  #layer!: CompiledLayer;
  #population!: Population;
  #force!: BoundForce;
  /** The place that the force at hand stands in, its axes, and the last direction in it that was asked for. */
  readonly #placed = new Float64Array(16);
  readonly #axes = [new Float64Array(3), new Float64Array(3), new Float64Array(3)] as const;
  readonly #way = new Float64Array(3);
  readonly #values: OwnValue[] = [];
  #valueCount = 0;
  readonly #moved = new Float64Array(3);
  readonly #come = { changes: 0, turn: 0 };
  /** How far fields have come whose speed is shaped. */
  #progress = new WeakMap<NumberReader, Progress>();
  #share = 1;
  #threshold = 0;
  readonly #changes: { -readonly [K in keyof Changes]: Changes[K] } = { now: 0, next: 0, share: 0 };
  readonly #tableMoment: { -readonly [K in keyof TableMoment]: TableMoment[K] } = {
    life: null,
    time: 0,
    around: null,
    effectTime: 0,
    stretchTime: 0,
    dials: {},
  };
  #slot = 0;
  #array = 0;
  #fadesItself = false;
  /** Accelerations and drag that all particles share, summed here rather than particle by particle. */
  readonly #evenPush = new Float64Array(3);
  #evenDrag = 0;
  #isEven = true;

  constructor(
    kernels: Kernels,
    buffer: ArrayBufferLike,
    scratch: Scratch,
    tables: Tables,
    helpers: number,
    worthSharing?: number,
  ) {
    this.#kernels = kernels;
    this.#buffer = buffer;
    this.#scratch = scratch;
    this.#targets = new Targets(scratch);
    this.#tables = tables;
    this.#helpers = helpers;
    this.#worthSharing = worthSharing;
    this.calls = new ProgramWriter(buffer, PROGRAM);
    this.#constants = new Constants(buffer);
  }

  /** The stage has changed. */
  forget(): void {
    this.#targets.forget();
    this.#progress = new WeakMap();
  }

  /** Moves a layer's particles through a step; those before `keptUntil` are drawn from where they are at its start. */
  move(layer: CompiledLayer, population: Population, moment: MovingStep, keptUntil = 0): void {
    if (population.count === 0) return;
    this.#moment = moment;
    this.#layer = layer;
    this.#population = population;
    this.time = moment.clock.fieldTime(moment.to);
    this.seconds = 1 / moment.rate;
    this.step = moment.step;
    setTime(this.#shared, moment.clock, moment.from);
    this.#each.effectTime = this.#shared.effectTime;
    this.#each.stretchTime = this.#shared.stretchTime;
    this.#each.channels = layer.channels;
    this.#each.time = moment.from;
    this.#each.around = this.#shared.around = layer.around;
    this.#shared.dials = this.#each.dials = moment.dials;
    this.#array = 0;
    this.#evenPush.fill(0);
    this.#evenDrag = 0;
    this.#isEven = true;
    this.calls.start();
    this.#constants.start();
    if (keptUntil > 0) this.calls.keep(keptUntil);
    for (const force of layer.forces) if (force.phase === 'velocity') this.#write(force);
    for (const force of layer.forces) if (force.phase === 'acceleration') this.#write(force);
    this.#integrate();
    for (const force of layer.forces) if (force.phase === 'constraint') this.#write(force);
    runShared(
      this.#kernels,
      this.#buffer,
      population.base,
      population.stride,
      population.count,
      this.#helpers,
      this.#worthSharing,
    );
  }

  #integrate(): void {
    const seconds = Math.fround(this.seconds);
    const { kept, first, second } = decayOf(this.#evenDrag, seconds);
    const even = this.#isEven ? this.#population.evenTo : 0;
    this.calls.integrate(this.#evenPush, even, kept, first, second, this.#evenDrag, this.step, seconds);
  }

  #write(force: BoundForce): void {
    const { place, group, threshold } = force.where;
    this.#force = force;
    this.#share = this.shared(force.where.share) / 100;
    const least = threshold ? this.shared(threshold) : 0;
    this.#threshold = least;
    if (this.#share === 0) return;
    this.#slot = FIRST_VALUE;
    this.#fadesItself = false;
    this.#valueCount = 0;
    this.#moment.scene.placeInto(this.#placed, place, this.#moment.to, group);
    for (let axis = 0; axis < 3; axis++) this.at[axis] = this.#placed[12 + axis]!;
    if (least > 0) this.calls.setAside(ASIDE);
    force.write(this);
    if (least > 0) this.calls.exceed(ASIDE, least * least);
  }

  direction(local: VectorReader): Three {
    local.readInto(this.#way, this.#shared);
    const way = this.#way;
    return this.#directionInto(way, way[0]!, way[1]!, way[2]!);
  }

  drifted(speed: VectorReader): Three {
    for (let axis = 0; axis < 3; axis++) {
      const reader = speed.axes[axis]!;
      this.#moved[axis] = reader.isConstant
        ? reader.low * reader.scale * this.time
        : this.#progressOf(reader).at(this.#moment.to);
    }
    return this.#moved;
  }

  #progressOf(reader: NumberReader): Progress {
    let known = this.#progress.get(reader);
    const { clock, dials } = this.#moment;
    if (!known) this.#progress.set(reader, (known = new Progress(reader, clock, dials)));
    return known;
  }

  squared(reader: NumberReader): number {
    const metres = this.shared(reader);
    return Math.fround(metres * metres);
  }

  halving(reader: NumberReader): Value {
    if (reader.isShared) {
      const taken = shareTaken(this.shared(reader), this.seconds);
      return this.#weighed(this.#valueOf(this.#constants.put(taken), 0));
    }
    return this.#weighed(
      this.#valueOf(
        this.#read(reader, 'start', 1, (half) => shareTaken(half, this.seconds)),
        1,
      ),
    );
  }

  axes(): readonly [Three, Three, Three] {
    this.#directionInto(this.#axes[0], 1, 0, 0);
    this.#directionInto(this.#axes[1], 0, 1, 0);
    this.#directionInto(this.#axes[2], 0, 0, 1);
    return this.#axes;
  }

  /** Writes a direction of the place at hand as one of the world, a metre long; up where it has no length. */
  #directionInto(out: Float64Array, x: number, y: number, z: number): Float64Array {
    const m = this.#placed;
    for (let axis = 0; axis < 3; axis++) out[axis] = m[axis]! * x + m[axis + 4]! * y + m[axis + 8]! * z;
    const size = Math.sqrt(out[0]! * out[0]! + out[1]! * out[1]! + out[2]! * out[2]!);
    const scale = 1 / size;
    for (let axis = 0; axis < 3; axis++) out[axis] = size > 1e-12 ? out[axis]! * scale : axis === 1 ? 1 : 0;
    return out;
  }

  slowsEach(): void {
    this.#isEven = false;
  }

  changes(reader: NumberReader): Changes {
    const { clock, to } = this.#moment;
    const come = this.#come;
    if (reader.isLevel) {
      const perSecond = this.shared(reader);
      come.turn = clock.changesATurn(perSecond);
      come.changes = clock.changesAt(to, perSecond);
    } else this.#progressOf(reader).changesInto(come, to);
    const { turn, changes } = come;
    const whole = Math.floor(changes);
    this.#changes.now = turn > 0 ? whole - Math.floor(whole / turn) * turn : whole;
    this.#changes.next = turn > 0 ? whole + 1 - Math.floor((whole + 1) / turn) * turn : whole + 1;
    this.#changes.share = changes - whole;
    return this.#changes;
  }

  shared(reader: NumberReader): number {
    return reader.read(this.#shared);
  }

  targets(kind: TargetKind): Three {
    const first = this.#array;
    this.#array += TARGET_ARRAYS;
    return this.#targets.write(kind, this.#force.where.place, this.#layer, this.#population, this.#moment, first);
  }

  ownFade(): number {
    const { reach, falloff } = this.#force.where;
    this.#fadesItself = falloff === 0;
    return this.#fadesItself && reach ? inverseReach(this.shared(reach)) : 0;
  }

  /** Whether the force pulls every particle of the layer alike. */
  #isAlike(reader: NumberReader): boolean {
    const { reach } = this.#force.where;
    return reader.isShared && this.#share >= 1 && this.#threshold === 0 && !(reach && this.shared(reach) > 0);
  }

  push(reader: NumberReader, way: Three): void {
    if (!this.#isAlike(reader)) return this.calls.uniform(this.value(reader), way);
    const strength = Math.fround(this.shared(reader));
    for (let axis = 0; axis < 3; axis++) {
      const pushed = Math.fround(strength * Math.fround(way[axis]!));
      this.#evenPush[axis] = Math.fround(this.#evenPush[axis]! + pushed);
    }
  }

  drag(reader: NumberReader): void {
    if (this.#isAlike(reader)) this.#evenDrag = Math.fround(this.#evenDrag + Math.fround(this.shared(reader)));
    else {
      this.slowsEach();
      this.calls.drag(this.value(reader));
    }
  }

  plain(reader: NumberReader): Value {
    return this.#plain(reader, 'start', 1);
  }

  value(reader: NumberReader, when: 'start' | 'end' = 'start', sign: 1 | -1 = 1): Value {
    return this.#weighed(this.#plain(reader, when, sign));
  }

  /** A value weakened by the force's share, reach and falloff. */
  #weighed(value: OwnValue): Value {
    const { shareSlot, reach, falloff } = this.#force.where;
    const share = this.#share;
    if (share < 1) {
      const out = this.#outOf(value);
      this.calls.pick(out, value, share, slotOf(shareSlot) | 0);
      value.address = out;
      value.each = 1;
    }
    const metres = reach ? this.shared(reach) : 0;
    if (metres > 0 && !this.#fadesItself) {
      const out = this.#outOf(value);
      this.calls.weigh(out, value, this.at, inverseReach(metres), falloff);
      value.address = out;
      value.each = 1;
    }
    return value;
  }

  /** Where a changed value may be written: where it was read from in scratch memory, as each particle reads its own before. */
  #outOf({ address }: Value): number {
    return address < 0 ? address : scratchSlot(this.#slot++);
  }

  #valueOf(address: number, each: number): OwnValue {
    const value = (this.#values[this.#valueCount++] ??= { address: 0, each: 0 });
    value.address = address;
    value.each = each;
    return value;
  }

  #plain(reader: NumberReader, when: 'start' | 'end', sign: 1 | -1): OwnValue {
    if (reader.isShared) return this.#valueOf(this.#constants.put(sign * this.shared(reader)), 0);
    const input = reader.tableInput(this.#layer.life);
    if (input === null) return this.#valueOf(this.#read(reader, when, sign), 1);
    const { clock, from, to, rate } = this.#moment;
    const moment = this.#tableMoment;
    moment.life = this.#layer.life;
    moment.time = this.#shared.time;
    moment.around = this.#shared.around;
    moment.effectTime = this.#shared.effectTime;
    moment.stretchTime = this.#shared.stretchTime;
    moment.dials = this.#shared.dials;
    const table = this.#tables.addressOf(reader, input, moment);
    const out = scratchSlot(this.#slot++);
    this.calls.shape(
      out,
      table,
      input === 'speed' ? 1 : 0,
      1 / reader.lastSpeed,
      reader.low,
      reader.high - reader.low,
      reader.slot | 0,
      reader.least,
      reader.most,
      sign * reader.scale,
      when === 'end' ? this.step + 1 : this.step,
      Math.fround(1 / rate),
      clock.standingAge(when === 'end' ? to : from),
    );
    return this.#valueOf(out, 1);
  }

  /** Reads a setting that no table serves, for each particle, into an array; returns its address. */
  #read(reader: NumberReader, when: 'start' | 'end', sign: number, change?: (value: number) => number): number {
    const n = this.#array++;
    const { arrays } = this.#scratch;
    const out = arrays.floats(n);
    const population = this.#population;
    const { clock, from, to, rate } = this.#moment;
    const step = when === 'end' ? this.step + 1 : this.step;
    const standingAge = clock.standingAge(when === 'end' ? to : from);
    const reading = this.#each;
    for (let i = 0; i < population.count; i++) {
      population.readInto(reading, i, step, rate, standingAge, clock.length);
      const value = sign * reader.read(reading);
      out[i] = change ? change(value) : value;
    }
    return arrays.address(n);
  }
}
