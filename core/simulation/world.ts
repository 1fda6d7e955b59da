import { listed, ownerOf, type Effect, type Layer } from '../document/index.ts';
import { PosedMesh, type Rig } from '../geometry/index.ts';
import { ProgramWriter, twinKernels, wasmKernels, type KernelBytes, type Kernels } from '../kernels/index.ts';
import { giveBirth, type Travel } from './births.ts';
import { EffectClock } from './clock.ts';
import { colourReader, compileLayer, dialShares, numberReaders, type CompiledLayer } from './compiled.ts';
import { runShared, stepsTaken } from './crew.ts';
import { Digest } from './digest.ts';
import { dressInto, type Dress } from './dress.ts';
import {
  BONES,
  Frame,
  HEADER,
  HEADER_BONES,
  HEADER_EXACT,
  HEADER_LAYERS,
  HEADER_PARTICLES,
  HEADER_RATE,
  HEADER_STEP,
  LAYER_BORN,
  LAYER_COUNT,
  LAYER_DEAD,
  LAYER_MICROSECONDS,
  LAYER_REFUSED,
  LAYER_SALT,
  LAYER_START,
  LAYER_WORDS,
  RECORDS,
  RECORD_WORDS,
} from './frame.ts';
import { Constants, POPULATIONS, PROGRAM, reserve } from './memory.ts';
import { Population } from './population.ts';
import { newReading, type Reading } from './reader.ts';
import { rideAlong } from './ride.ts';
import { Scene } from './scene.ts';
import { SIMULATION } from './version.ts';

export const DEFAULT_RATE = 60;
export const DEFAULT_BUDGET = 100_000;

/** What happens to an effect from outside, in simulation time. */
export interface Inputs {
  /** The step in which the effect is let go; absent while it is held. */
  readonly letGoStep?: number;
}

export interface WorldOptions {
  /** SIMD kernels; without them the twins run, to the same bits. */
  readonly kernels?: KernelBytes;
  /** Steps a second. */
  readonly rate?: number;
  /** Most particles living at once, all layers together. */
  readonly budget?: number;
  /** Whether the memory is shared, for helpers and for the stage. */
  readonly shared?: boolean;
  /** Threads beside this one that have joined the crew (crew.ts). */
  readonly helpers?: number;
  /** Microseconds, for what each layer costs; nothing computed depends on it. */
  readonly now?: () => number;
}

interface Running {
  compiled: CompiledLayer;
  readonly population: Population;
  readonly travel: Travel;
  microseconds: number;
}

/** A world of one effect: everything that is computed about it, step by step. */
export class World {
  readonly memory: WebAssembly.Memory;
  readonly rate: number;
  readonly budget: number;
  readonly #kernels: Kernels;
  readonly #options: WorldOptions;
  readonly #rigs: ReadonlyMap<string, Rig>;
  readonly #program: ProgramWriter;
  readonly #constants: Constants;
  readonly #strengths: number;
  readonly #strengthBytes: number;
  readonly #strengthSlots: number;
  readonly #reading: Reading = newReading();
  #effect: Effect;
  #scene: Scene;
  #clock: EffectClock;
  /** Layers with particles of their own, by salt: no order on screen reaches what is computed. */
  #running: Running[];
  readonly #followerDresses = new Map<string, Dress>();
  #meshFrom: PosedMesh | null;
  #meshTo: PosedMesh | null;
  #posedTo = NaN;
  #inputs: Inputs;
  #step = 0;
  #isExact = true;

  constructor(effect: Effect, rigs: ReadonlyMap<string, Rig>, inputs: Inputs = {}, options: WorldOptions = {}) {
    this.rate = options.rate ?? DEFAULT_RATE;
    this.budget = options.budget ?? DEFAULT_BUDGET;
    this.#options = options;
    this.#rigs = rigs;
    this.#effect = effect;
    this.#inputs = inputs;
    this.#scene = new Scene(effect.stage, rigs);
    this.#clock = this.#newClock();
    const compiled = this.#compile();
    const capacities = compiled.map((layer) => World.capacityOf(layer, this.budget));
    this.#strengthBytes = Math.max(4, ...capacities) * 4;
    this.#strengthSlots = Math.max(0, ...compiled.map(varyingStrengths)) + SPARE_STRENGTHS;
    const populationBytes = capacities.reduce((sum, capacity) => sum + Population.bytes(capacity), 0);
    this.#strengths = POPULATIONS + populationBytes;
    this.memory = reserve(this.#strengths + this.#strengthBytes * this.#strengthSlots, options.shared ?? false);
    const buffer = this.memory.buffer;
    this.#program = new ProgramWriter(buffer, PROGRAM);
    this.#constants = new Constants(buffer);
    this.#kernels = options.kernels
      ? wasmKernels(options.kernels, this.memory)
      : twinKernels({ f32: new Float32Array(buffer), i32: new Int32Array(buffer) });
    let base = POPULATIONS;
    this.#running = compiled.map((layer, index): Running => {
      const population = new Population(buffer, base, capacities[index]!);
      base += Population.bytes(capacities[index]!);
      return { compiled: layer, population, travel: { metres: 0 }, microseconds: 0 };
    });
    this.#meshFrom = this.#scene.rig && new PosedMesh(this.#scene.rig);
    this.#meshTo = this.#scene.rig && new PosedMesh(this.#scene.rig);
    this.restart();
  }

  /** Room for a layer, a whole number of groups of four. */
  static capacityOf(layer: Pick<CompiledLayer, 'cap'>, budget: number): number {
    return Math.ceil(Math.min(layer.cap, budget) / 4) * 4;
  }

  get step(): number {
    return this.#step;
  }
  get clock(): EffectClock {
    return this.#clock;
  }
  get effect(): Effect {
    return this.#effect;
  }
  /** False after a change was taken over in mid-run: what is seen is then not yet what a run from zero gives. */
  get isExact(): boolean {
    return this.#isExact;
  }
  get living(): number {
    return this.#running.reduce((sum, { population }) => sum + population.count, 0);
  }
  /** True when the effect has ended and nothing of it lives. */
  get isOver(): boolean {
    return this.#step / this.rate >= this.#clock.endsAt && this.living === 0;
  }
  /** What each layer with particles of its own has, and what its last step cost. */
  counts(): { salt: number; living: number; born: number; refused: number; microseconds: number }[] {
    return this.#running.map(({ compiled, population, microseconds }) => ({
      salt: compiled.layer.salt,
      living: population.count,
      born: population.born,
      refused: population.refused,
      microseconds,
    }));
  }
  population(layerId: string): Population | undefined {
    return this.#running.find(({ compiled }) => compiled.id === layerId)?.population;
  }
  /** Share of the work each thread has done so far. */
  threadShares(threads: number): number[] {
    const taken = stepsTaken(this.memory.buffer, threads);
    const sum = taken.reduce((a, b) => a + b, 0);
    return taken.map((steps) => (sum > 0 ? steps / sum : 0));
  }

  #newClock(): EffectClock {
    const { letGoStep } = this.#inputs;
    return new EffectClock(this.#effect.stretches, letGoStep === undefined ? Infinity : letGoStep / this.rate);
  }

  #compile(): CompiledLayer[] {
    return listed(this.#effect.layers)
      .filter(({ item }) => item.population.kind === 'own')
      .map(({ id }) => compileLayer(id, this.#effect, this.#scene, this.#clock))
      .sort((a, b) => a.layer.salt - b.layer.salt || (a.id < b.id ? -1 : 1));
  }

  /** Goes back to before the first step. */
  restart(): void {
    this.#step = 0;
    this.#isExact = true;
    for (const running of this.#running) {
      running.population.empty();
      running.travel.metres = 0;
    }
    this.#poseMeshes(0, 0);
  }

  /** Takes the moment of letting go from now on. */
  letGo(): void {
    this.#inputs = { ...this.#inputs, letGoStep: this.#step };
    this.#clock = this.#newClock();
    this.#running.forEach(
      (running) => (running.compiled = compileLayer(running.compiled.id, this.#effect, this.#scene, this.#clock)),
    );
  }

  /**
   * Goes on with a changed document. Returns false, and changes nothing, when the change needs a new world:
   * other layers or caps, another figure, or more forces than there is room for.
   */
  adopt(effect: Effect): boolean {
    const kept = { effect: this.#effect, scene: this.#scene, clock: this.#clock };
    const sameFigure = JSON.stringify(effect.stage.figure) === JSON.stringify(this.#effect.stage.figure);
    this.#effect = effect;
    if (JSON.stringify(effect.stage) !== JSON.stringify(kept.effect.stage))
      this.#scene = new Scene(effect.stage, this.#rigs);
    this.#clock = this.#newClock();
    const compiled = this.#compile();
    const fits =
      sameFigure &&
      compiled.length === this.#running.length &&
      compiled.every((layer, index) => {
        const { compiled: old, population } = this.#running[index]!;
        return (
          old.id === layer.id &&
          World.capacityOf(layer, this.budget) === population.capacity &&
          varyingStrengths(layer) <= this.#strengthSlots &&
          JSON.stringify(layer.layer.source) === JSON.stringify(old.layer.source)
        );
      });
    if (!fits) {
      this.#effect = kept.effect;
      this.#scene = kept.scene;
      this.#clock = kept.clock;
      return false;
    }
    compiled.forEach((layer, index) => (this.#running[index]!.compiled = layer));
    this.#followerDresses.clear();
    if (this.#step > 0) this.#isExact = false;
    return true;
  }

  /** Takes a document that differs from the present one only in dress: nothing is simulated again. */
  redress(effect: Effect): void {
    const wasExact = this.#isExact;
    if (this.adopt(effect)) this.#isExact = wasExact;
  }

  /** Poses the figure at a step's start and end. What was the end of the step before is this one's start. */
  #poseMeshes(from: number, to: number): void {
    if (!this.#meshFrom || !this.#meshTo) return;
    if (from === this.#posedTo) [this.#meshFrom, this.#meshTo] = [this.#meshTo, this.#meshFrom];
    else this.#meshFrom.setPose(this.#scene.skinAt(from));
    this.#meshTo.setPose(this.#scene.skinAt(to));
    this.#posedTo = to;
  }

  /** Steps up to `toStep`; going back starts again from zero. Returns early when `isCancelled` says so. */
  advance(toStep: number, isCancelled?: () => boolean): void {
    if (toStep < this.#step) this.restart();
    while (this.#step < toStep && !isCancelled?.()) this.#advanceOne();
  }

  #advanceOne(): void {
    const step = this.#step;
    const from = step / this.rate;
    const to = (step + 1) / this.rate;
    this.#poseMeshes(from, to);
    const reading = this.#reading;
    reading.dials = dialShares(this.#effect);
    const birthStep = {
      step,
      from,
      to,
      seed: this.#effect.seed,
      clock: this.#clock,
      scene: this.#scene,
      meshFrom: this.#meshFrom,
      meshTo: this.#meshTo,
      room: this.budget - this.living,
    };
    for (const running of this.#running) {
      const started = this.#options.now?.() ?? 0;
      const { compiled, population } = running;
      population.keepPlaces();
      rideAlong(compiled, population, from, to, this.#meshFrom, this.#meshTo);
      giveBirth(compiled, population, birthStep, reading, running.travel);
      this.#move(running, from, to);
      this.#bury(population, step + 1);
      running.microseconds = (this.#options.now?.() ?? 0) - started;
    }
    this.#step = step + 1;
  }

  #move({ compiled, population }: Running, from: number, to: number): void {
    if (population.count === 0) return;
    const reading = this.#reading;
    reading.effectTime = this.#clock.share(from);
    const moment = { time: to, shared: { ...reading, key: 0, age: 0, speed: 0 } };
    this.#program.start();
    this.#constants.start();
    let slot = 0;
    for (const force of compiled.forces) {
      const call = force.call(moment);
      const strengths = force.strengths.flatMap((reader) => {
        if (reader.isShared) return [this.#constants.put(reader.read(moment.shared)), 0];
        const address = this.#strengths + this.#strengthBytes * slot++;
        this.#readStrengths(reader, population, address, from);
        return [address, 1];
      });
      this.#program.call(call.kernel, [...strengths, ...call.values]);
    }
    this.#program.call('integrate', [this.#step, Math.fround(1 / this.rate)]);
    runShared(
      this.#kernels,
      this.memory.buffer,
      population.base,
      population.stride,
      population.count,
      this.#options.helpers ?? 0,
    );
  }

  #readStrengths(
    reader: CompiledLayer['forces'][number]['strengths'][number],
    population: Population,
    address: number,
    time: number,
  ): void {
    const out = new Float32Array(this.memory.buffer, address, population.capacity);
    const reading = this.#reading;
    const { velocity } = population;
    for (let i = 0; i < population.count; i++) {
      const life = population.life[i]!;
      const seconds = population.stepsLived(i, this.#step) / this.rate;
      reading.key = population.key[i]!;
      reading.life = life === 0 ? Math.max(this.#clock.length, 0.02) : life;
      reading.age = life === 0 ? this.#clock.standingAge(time) : Math.min(1, seconds / life);
      const [x, y, z] = [velocity[0][i]!, velocity[1][i]!, velocity[2][i]!];
      reading.speed = Math.sqrt(x * x + y * y + z * z);
      out[i] = reader.read(reading);
    }
  }

  #bury(population: Population, step: number): void {
    const isOver = step / this.rate >= this.#clock.endsAt;
    population.remove((i) => {
      const life = population.life[i]!;
      return life === 0 ? isOver : population.stepsLived(i, step) / this.rate >= life;
    });
  }

  /** Most particle records a frame of this world can need, following layers included. */
  get mostRecords(): number {
    return this.#drawn().reduce((sum, { population }) => sum + population.capacity, 0);
  }

  /** Every layer with the population it shows, by salt: its own or the one it follows. */
  #drawn() {
    return listed(this.#effect.layers)
      .flatMap(({ id, item }) => {
        const owner = ownerOf(this.#effect, id);
        const running = this.#running.find(({ compiled }) => compiled.id === owner);
        return running ? [{ id, layer: item, running, population: running.population, isOwn: owner === id }] : [];
      })
      .sort((a, b) => a.layer.salt - b.layer.salt || (a.id < b.id ? -1 : 1));
  }

  /** The dress of a layer that follows another, made once for a document. */
  #followerDress(id: string, layer: Layer, scale: number): Dress {
    const known = this.#followerDresses.get(id);
    if (known) return known;
    const dress = { numbers: numberReaders(layer, this.#effect, scale), colour: colourReader(layer, this.#effect) };
    this.#followerDresses.set(id, dress);
    return dress;
  }

  /** Writes the present instant as a frame, dressed by `effect`'s dress settings. */
  writeFrame(frame: Frame): void {
    const { f32, u32 } = frame;
    const reading = this.#reading;
    reading.dials = dialShares(this.#effect);
    let start = 0;
    const drawn = this.#drawn();
    drawn.forEach(({ id, layer, running, population, isOwn }, index) => {
      const dress = isOwn ? running.compiled : this.#followerDress(id, layer, running.compiled.group.scale);
      dressInto(
        frame,
        RECORDS + start * RECORD_WORDS,
        population,
        dress,
        reading,
        this.#step,
        this.rate,
        this.#clock,
      );
      const at = HEADER + index * LAYER_WORDS;
      u32[at + LAYER_SALT] = layer.salt;
      u32[at + LAYER_START] = start;
      u32[at + LAYER_COUNT] = population.count;
      u32[at + LAYER_BORN] = isOwn ? population.born : 0;
      u32[at + LAYER_REFUSED] = isOwn ? population.refused : 0;
      u32[at + LAYER_DEAD] = isOwn ? population.dead : 0;
      u32[at + LAYER_MICROSECONDS] = isOwn ? running.microseconds : 0;
      start += population.count;
    });
    const bones = this.#meshTo?.rig.bones.length ?? 0;
    if (this.#meshFrom && this.#meshTo) {
      f32.set(this.#meshFrom.matrices, BONES);
      f32.set(this.#meshTo.matrices, BONES + bones * 16);
    }
    u32[HEADER_STEP] = this.#step;
    u32[HEADER_LAYERS] = drawn.length;
    u32[HEADER_BONES] = bones;
    u32[HEADER_PARTICLES] = start;
    u32[HEADER_EXACT] = this.#isExact ? 1 : 0;
    u32[HEADER_RATE] = this.rate;
  }

  /** Hash of state and dress, by layer salt then birth order; null while the run is not exact. */
  hash(): string | null {
    if (!this.#isExact) return null;
    const frame = new Frame(
      new ArrayBuffer(Frame.bytes(this.#drawn().reduce((sum, { population }) => sum + population.count, 0))),
    );
    this.writeFrame(frame);
    const digest = new Digest();
    digest.word(SIMULATION);
    digest.word(this.#step);
    for (const { compiled, population } of this.#running) {
      digest.word(compiled.layer.salt);
      digest.word(population.count);
      for (let i = 0; i < population.count; i++) {
        digest.word(population.key[i]!);
        digest.number(population.life[i]!);
        for (const axis of [...population.position, ...population.velocity]) digest.number(axis[i]!);
      }
    }
    const end = RECORDS + frame.particles * RECORD_WORDS;
    for (let i = BONES; i < BONES + frame.bones * 32; i++) digest.number(frame.f32[i]!);
    for (let i = RECORDS; i < end; i++) digest.word(frame.f32[i] === 0 ? 0 : frame.u32[i]!);
    return digest.text;
  }
}

/** Strengths of this many more varying forces fit a world before an edit needs a new one. */
const SPARE_STRENGTHS = 2;

const varyingStrengths = (layer: CompiledLayer): number =>
  layer.forces.reduce((sum, force) => sum + force.strengths.filter((reader) => !reader.isShared).length, 0);
