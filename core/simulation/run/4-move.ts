import {
  decayOf,
  ProgramWriter,
  scratchSlot,
  type CallName,
  type CallValues,
  type Kernels,
} from '../../kernels/index.ts';
import { slotOf, unit, type Vec3 } from '../../maths/index.ts';
import type { EffectClock } from '../time/clock.ts';
import { runShared } from './crew.ts';
import { TARGET_ARRAYS, type ForceWriter, type Nine, type TargetKind, type Value } from '../forces/index.ts';
import { Constants, PROGRAM, type Scratch } from './memory.ts';
import type { Population } from './population.ts';
import { newReading, setTime, type Reading } from '../values/reading.ts';
import type { NumberReader } from '../values/numberReader.ts';
import type { PlacedFrame, Scene } from '../scene/scene.ts';
import type { Tables } from '../values/tables.ts';
import { Targets } from './targets.ts';
import type { CompiledLayer, BoundForce } from '../compile/plan.ts';

/** Scratch slots: 0 to 3 are a step's sums, the last three hold accelerations put aside; between are values. */
const FIRST_VALUE = 4;
const ASIDE = [scratchSlot(13), scratchSlot(14), scratchSlot(15)] as const;

const X: Vec3 = [1, 0, 0];
const Y: Vec3 = [0, 1, 0];
const Z: Vec3 = [0, 0, 1];

/** Arrays a layer's forces need: one for each setting whose shapers no table serves (each twice, at most). */
export const arraysFor = (layer: CompiledLayer): number =>
  layer.forces.reduce(
    (sum, { each, arrays = 0 }) =>
      sum + arrays + 2 * each.filter((reader) => !reader.isShared && reader.tableInput(layer.life) === null).length,
    0,
  );

/** Tables a layer's forces need. */
export const tablesFor = (layer: CompiledLayer): number =>
  layer.forces.reduce((sum, { each }) => sum + each.filter((reader) => !reader.isShared).length, 0);

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

/** Writes and runs the program of a layer's step: velocities, accelerations and drags, the integrator, constraints. */
export class Mover implements ForceWriter {
  time = 0;
  seconds = 0;
  step = 0;
  at: Vec3 = [0, 0, 0];
  readonly #program: ProgramWriter;
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
  #placed!: PlacedFrame;
  #slot = 0;
  #array = 0;
  #fadesItself = false;
  /** Accelerations and drag that all particles share, summed here rather than particle by particle. */
  readonly #evenPush: [number, number, number] = [0, 0, 0];
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
    this.#program = new ProgramWriter(buffer, PROGRAM);
    this.#constants = new Constants(buffer);
  }

  /** The stage has changed. */
  forget(): void {
    this.#targets.forget();
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
    this.#shared.dials = this.#each.dials = moment.dials;
    this.#array = 0;
    this.#evenPush.fill(0);
    this.#evenDrag = 0;
    this.#isEven = true;
    this.#program.start();
    this.#constants.start();
    if (keptUntil > 0) this.call('keep', [keptUntil]);
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
    this.call('integrate', [...this.#evenPush, even, kept, first, second, this.#evenDrag, this.step, seconds]);
  }

  #write(force: BoundForce): void {
    const { place, group, threshold, share } = force.where;
    if (share === 0) return;
    this.#force = force;
    this.#slot = FIRST_VALUE;
    this.#fadesItself = false;
    this.#placed = this.#moment.scene.placeAt(place, this.#moment.to, group);
    this.at = this.#placed.rigid.at;
    if (threshold > 0) this.call('setAside', ASIDE);
    force.write(this);
    if (threshold > 0) this.call('exceed', [...ASIDE, threshold * threshold]);
  }

  direction(local: Vec3): Vec3 {
    return unit(this.#placed.toWorld(local));
  }

  axes(): Nine {
    return [...this.direction(X), ...this.direction(Y), ...this.direction(Z)];
  }

  call<N extends CallName>(name: N, values: CallValues<N>): void {
    this.#program.call(name, values);
  }

  slow<N extends CallName>(name: N, values: CallValues<N>): void {
    this.#isEven = false;
    this.#program.call(name, values);
  }

  changes(perSecond: number): { now: number; next: number; share: number } {
    const { changes, turn } = this.#moment.clock.changesAt(this.#moment.to, perSecond);
    const whole = Math.floor(changes);
    const within = (n: number) => (turn > 0 ? n - Math.floor(n / turn) * turn : n);
    return { now: within(whole), next: within(whole + 1), share: changes - whole };
  }

  shared(reader: NumberReader): number {
    return reader.read(this.#shared);
  }

  targets(kind: TargetKind): [number, number, number] {
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
    const { share, reach, threshold } = this.#force.where;
    return reader.isShared && share >= 1 && threshold === 0 && !(reach && this.shared(reach) > 0);
  }

  push(reader: NumberReader, way: Vec3): void {
    if (!this.#isAlike(reader)) return this.call('uniform', [...this.value(reader), ...way]);
    const strength = Math.fround(this.shared(reader));
    for (let axis = 0; axis < 3; axis++) {
      const pushed = Math.fround(strength * Math.fround(way[axis]!));
      this.#evenPush[axis] = Math.fround(this.#evenPush[axis]! + pushed);
    }
  }

  drag(reader: NumberReader): void {
    if (this.#isAlike(reader)) this.#evenDrag = Math.fround(this.#evenDrag + Math.fround(this.shared(reader)));
    else this.slow('drag', this.value(reader));
  }

  plain(reader: NumberReader, when: 'start' | 'end' = 'start', sign: 1 | -1 = 1): Value {
    if (reader.isShared) return [this.#constants.put(sign * this.shared(reader)), 0];
    const input = reader.tableInput(this.#layer.life);
    if (input === null) return [this.#read(reader, when, sign), 1];
    const { clock, from, to, rate } = this.#moment;
    const { effectTime, stretchTime, dials } = this.#shared;
    const moment = { life: this.#layer.life, effectTime, stretchTime, dials };
    const table = this.#tables.addressOf(reader, input, moment);
    const out = scratchSlot(this.#slot++);
    this.call('shape', [
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
    ]);
    return [out, 1];
  }

  value(reader: NumberReader, when: 'start' | 'end' = 'start', sign: 1 | -1 = 1): Value {
    let [address, each] = this.plain(reader, when, sign);
    const { share, shareSlot, reach, falloff } = this.#force.where;
    // A value may be written where it was read from: each particle reads its own before writing it.
    const scratch = () => (address < 0 ? address : scratchSlot(this.#slot++));
    if (share < 1) {
      const out = scratch();
      this.call('pick', [out, address, each, share, slotOf(shareSlot) | 0]);
      [address, each] = [out, 1];
    }
    const metres = reach ? this.shared(reach) : 0;
    if (metres > 0 && !this.#fadesItself) {
      const out = scratch();
      this.call('weigh', [out, address, each, ...this.at, inverseReach(metres), falloff]);
      [address, each] = [out, 1];
    }
    return [address, each];
  }

  /** Reads a setting that no table serves, for each particle, into an array; returns its address. */
  #read(reader: NumberReader, when: 'start' | 'end', sign: number): number {
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
      out[i] = sign * reader.read(reading);
    }
    return arrays.address(n);
  }
}
