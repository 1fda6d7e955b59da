import { lineageOf, listed, ownerOf, type Effect, type Lineage } from '../document/index.ts';
import type { Rig } from '../geometry/index.ts';
import { twinKernels, wasmKernels, type KernelBytes, type Kernels } from '../kernels/index.ts';
import { Midwife } from './births.ts';
import { EffectClock } from './clock.ts';
import { compileLayer, dialShares, type CompiledLayer } from './compiled.ts';
import { stepsTaken } from './crew.ts';
import { DRESS_ARRAY_COUNT } from './dressing.ts';
import { Frame, RECORD_WORDS } from './frame.ts';
import { FrontReader, Releaser } from './fronts/index.ts';
import { drawnLayers, DRESSES_BYTES, Framer } from './framing.ts';
import { hashOf } from './hashing.ts';
import { Arrays, POPULATIONS, reserve } from './memory.ts';
import { Inbox, passedOn, Teller } from './links/index.ts';
import { arraysFor, Mover, tablesFor } from './moving.ts';
import { Population } from './population.ts';
import { newReading, type Reading } from './reader.ts';
import { Rider } from './ride.ts';
import type { Running } from './running.ts';
import { Scene } from './scene.ts';
import { bindSurfaces, Collider, Hits, surfacesMet } from './surfaces/index.ts';
import { NUMBER_TABLE_BYTES, Tables } from './tables.ts';
import { tripleBufferBytes } from './tripleBuffer.ts';

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
  /** Whether three frames lie in the world's memory, to be written in place and read by the stage. */
  readonly frames?: boolean;
  /** Threads beside this one that have joined the crew (crew.ts). */
  readonly helpers?: number;
  /** Microseconds, for what each layer costs; nothing computed depends on it. */
  readonly now?: () => number;
}

/** Room for this many more settings that vary before an edit needs a new world. */
const SPARE = 8;

/** A world of one effect: everything that is computed about it, step by step. */
export class World {
  readonly memory: WebAssembly.Memory;
  /** Where the frames lie in the memory (tripleBuffer.ts), and for how many particles; null without any. */
  readonly frames: { readonly address: number; readonly mostRecords: number } | null;
  readonly rate: number;
  readonly budget: number;
  readonly #kernels: Kernels;
  readonly #options: WorldOptions;
  readonly #rigs: ReadonlyMap<string, Rig>;
  readonly #arrays: Arrays;
  readonly #tables: Tables;
  readonly #tableCount: number;
  readonly #mover: Mover;
  readonly #framer: Framer;
  readonly #layerCount: number;
  readonly #midwife = new Midwife();
  readonly #rider = new Rider();
  readonly #collider: Collider;
  readonly #teller = new Teller();
  readonly #releaser = new Releaser();
  readonly #reading: Reading = newReading();
  #effect: Effect;
  #scene: Scene;
  #clock: EffectClock;
  /** Layers with particles of their own, by salt: no order on screen reaches what is computed. */
  #running: Running[];
  /** The same in the order in which they are stepped. */
  #stepping: Running[] = [];
  #lineage!: Lineage;
  #inboxes: ReadonlyMap<string, Inbox> = new Map();
  #inputs: Inputs;
  #step = 0;
  #stepsTaken = 0;
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
    this.#scene.clock = this.#clock;
    const compiled = this.#compile();
    const caps = compiled.map((layer) => this.#capOf(layer));
    const largest = Math.max(4, ...caps.map((cap) => Population.placesFor(cap)));
    const arrayCount = Math.max(DRESS_ARRAY_COUNT, ...compiled.map(arraysFor)) + SPARE;
    this.#tableCount = compiled.reduce((sum, layer) => sum + tablesFor(layer), 0) + SPARE;
    this.#layerCount = effect.layers.order.length;

    const arraysAt = POPULATIONS + caps.reduce((sum, cap) => sum + Population.bytes(cap), 0);
    const tablesAt = arraysAt + Arrays.bytes(largest, arrayCount);
    const dressesAt = aligned(tablesAt + this.#tableCount * NUMBER_TABLE_BYTES);
    const recordsAt = aligned(dressesAt + DRESSES_BYTES(this.#layerCount));
    const framesAt = aligned(recordsAt + (largest + 1) * RECORD_WORDS * 4);
    const capOf = (id: string) => caps[compiled.findIndex((layer) => layer.id === id)] ?? 0;
    const mostRecords = options.frames ? mostRecordsOf(effect, capOf) : 0;
    const frameBytes = options.frames ? tripleBufferBytes(mostRecords) : 0;
    this.memory = reserve(framesAt + frameBytes, options.shared ?? false);
    this.frames = options.frames ? { address: framesAt, mostRecords } : null;
    const buffer = this.memory.buffer;
    this.#kernels = options.kernels
      ? wasmKernels(options.kernels, this.memory)
      : twinKernels({ f32: new Float32Array(buffer), i32: new Int32Array(buffer) });
    this.#arrays = new Arrays(buffer, arraysAt, largest, arrayCount);
    this.#tables = new Tables(buffer, tablesAt, this.#tableCount);
    this.#collider = new Collider(largest);
    this.#takeSurfaces();
    this.#mover = new Mover(this.#kernels, buffer, this.#arrays, this.#tables, options.helpers ?? 0);
    this.#framer = new Framer(this.#kernels, buffer, dressesAt, this.#layerCount, recordsAt, this.#arrays);
    let base = POPULATIONS;
    this.#running = compiled.map((layer, index): Running => {
      const population = new Population(buffer, base, caps[index]!);
      base += Population.bytes(caps[index]!);
      return {
        compiled: layer,
        population,
        travel: { metres: 0 },
        hits: new Hits(),
        inbox: new Inbox(),
        turnStart: 0,
        microseconds: 0,
      };
    });
    this.#inboxes = new Map(this.#running.map(({ compiled: { id }, inbox }) => [id, inbox]));
    this.#order();
    this.restart();
  }

  #runningOf(layerId: string): Running | undefined {
    return this.#running?.find(({ compiled }) => compiled.id === layerId);
  }

  #order(): void {
    this.#stepping = this.#lineage.order.map((id) => this.#runningOf(id)!);
  }

  #capOf(layer: Pick<CompiledLayer, 'cap'>): number {
    return Math.min(layer.cap, this.budget);
  }

  get step(): number {
    return this.#step;
  }
  /** Steps computed since this world was made, those computed again included. */
  get stepsTaken(): number {
    return this.#stepsTaken;
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
    return this.#running.reduce((sum, { population }) => sum + population.living, 0);
  }
  /** True when the effect has ended and nothing of it lives. */
  get isOver(): boolean {
    return this.#clock.timeOf(this.#step) >= this.#clock.endsAt && this.living === 0;
  }
  /** What each layer with particles of its own has, and what its last step cost. */
  counts(): { salt: number; living: number; born: number; refused: number; microseconds: number }[] {
    return this.#running.map(({ compiled, population, microseconds }) => ({
      salt: compiled.layer.salt,
      living: population.living,
      born: population.born,
      refused: population.refused,
      microseconds,
    }));
  }
  /** The particles of a layer, the dead cleared away: all places up to `count` are taken by the living. */
  population(layerId: string): Population | undefined {
    const population = this.#runningOf(layerId)?.population;
    population?.compact(this.#kernels, this.#arrays.address(0), true);
    return population;
  }
  /** Skin matrices of a thing on the stage at the present instant. */
  skinOf(thingId: string): Float32Array | undefined {
    return this.#scene.thing(thingId)?.meshTo.matrices;
  }
  /** Impacts of a layer's particles in the last step. */
  hits(layerId: string): Hits | undefined {
    return this.#runningOf(layerId)?.hits;
  }
  /** Share of the work each thread has done so far. */
  threadShares(threads: number): number[] {
    const taken = stepsTaken(this.memory.buffer, threads);
    const sum = taken.reduce((a, b) => a + b, 0);
    return taken.map((steps) => (sum > 0 ? steps / sum : 0));
  }

  #newClock(): EffectClock {
    const { letGoStep } = this.#inputs;
    const held = new EffectClock(this.#effect.stretches, Infinity, this.rate);
    if (letGoStep === undefined) return held;
    return new EffectClock(this.#effect.stretches, held.timeOf(letGoStep), this.rate);
  }

  /** The clock is made anew, for whoever reads it: the stretches have changed, or the effect was let go. */
  #takeClock(): void {
    this.#clock = this.#newClock();
    this.#scene.clock = this.#clock;
  }

  #takeSurfaces(): void {
    const dials = dialShares(this.#effect);
    this.#collider.take(
      bindSurfaces({ effect: this.#effect, scene: this.#scene, clock: this.#clock, rigs: this.#rigs, dials }),
    );
  }

  #frontsOf(effect: Effect): ReadonlyMap<string, FrontReader> {
    const around = { effect, scene: this.#scene, clock: this.#clock, dials: dialShares(effect) };
    return new Map(listed(effect.fronts).map(({ id, item }) => [id, new FrontReader(id, item, around)]));
  }

  #compile(): CompiledLayer[] {
    const effect = this.#effect;
    const lineage = lineageOf(effect);
    const compiling = {
      effect,
      scene: this.#scene,
      clock: this.#clock,
      lineage,
      passedOn: passedOn(effect),
      fronts: this.#frontsOf(effect),
      populationOf: (id: string) => this.#runningOf(id)?.population ?? null,
    };
    this.#lineage = lineage;
    return listed(effect.layers)
      .filter(({ item }) => item.population.kind === 'own')
      .map(({ id }) => compileLayer(id, compiling))
      .sort((a, b) => a.layer.salt - b.layer.salt || (a.id < b.id ? -1 : 1));
  }

  /** Goes back to before the first step. */
  restart(): void {
    this.#step = -this.#clock.unseenSteps;
    this.#isExact = true;
    for (const running of this.#running) {
      running.population.empty();
      running.inbox.empty();
      running.travel.metres = 0;
      running.turnStart = 0;
    }
    const begins = this.#clock.beginsAt;
    this.#scene.pose(begins, begins);
    this.#takeSteps(0);
  }

  /** Takes the moment of letting go from now on. */
  letGo(): void {
    this.#inputs = { ...this.#inputs, letGoStep: this.#step };
    this.#takeClock();
    this.#takeCompiled(this.#compile());
  }

  #takeCompiled(compiled: readonly CompiledLayer[]): void {
    compiled.forEach((layer, index) => (this.#running[index]!.compiled = layer));
    this.#order();
    this.#takeSurfaces();
    this.#tables.forget();
    this.#framer.forget();
  }

  /**
   * Goes on with a changed document. Returns false, and changes nothing, when the change needs a new world:
   * other layers or caps, another figure, or more forces than there is room for.
   */
  adopt(effect: Effect): boolean {
    const kept = { effect: this.#effect, scene: this.#scene, clock: this.#clock };
    const sameThings = JSON.stringify(effect.stage.things) === JSON.stringify(this.#effect.stage.things);
    const sameSurfaces = surfacesMet(effect) === surfacesMet(this.#effect);
    this.#effect = effect;
    if (JSON.stringify(effect.stage) !== JSON.stringify(kept.effect.stage))
      this.#scene = new Scene(effect.stage, this.#rigs);
    this.#takeClock();
    const compiled = this.#compile();
    const tables = compiled.reduce((sum, layer) => sum + tablesFor(layer), 0);
    const fits =
      sameThings &&
      sameSurfaces &&
      compiled.length === this.#running.length &&
      effect.layers.order.length <= this.#layerCount &&
      tables <= this.#tableCount &&
      (!this.frames || this.#mostRecordsOf(effect) <= this.frames.mostRecords) &&
      compiled.every((layer, index) => {
        const { compiled: old, population } = this.#running[index]!;
        return (
          old.id === layer.id &&
          this.#capOf(layer) === population.cap &&
          arraysFor(layer) <= this.#arrays.count &&
          JSON.stringify(layer.layer.source) === JSON.stringify(old.layer.source)
        );
      });
    if (!fits) {
      this.#effect = kept.effect;
      this.#scene = kept.scene;
      this.#clock = kept.clock;
      this.#scene.clock = kept.clock;
      return false;
    }
    this.#takeCompiled(compiled);
    if (this.#step > -this.#clock.unseenSteps) this.#isExact = false;
    return true;
  }

  /** Takes a document that differs from the present one only in dress: nothing is simulated again. */
  redress(effect: Effect): void {
    const wasExact = this.#isExact;
    if (this.adopt(effect)) this.#isExact = wasExact;
  }

  /** Steps up to `toStep`; going back starts again from zero. Returns early when `isCancelled` says so. */
  advance(toStep: number, isCancelled?: () => boolean): void {
    if (toStep < this.#step) this.restart();
    this.#takeSteps(toStep, isCancelled);
  }

  #takeSteps(toStep: number, isCancelled?: () => boolean): void {
    while (this.#step < toStep && !isCancelled?.()) this.#advanceOne();
  }

  #advanceOne(): void {
    const step = this.#step;
    const from = this.#clock.timeOf(step);
    const to = this.#clock.timeOf(step + 1);
    this.#scene.pose(from, to);
    const reading = this.#reading;
    reading.dials = dialShares(this.#effect);
    const moment = { step, from, to, rate: this.rate, clock: this.#clock, scene: this.#scene, dials: reading.dials };
    const birthStep = {
      ...moment,
      isFirst: step === -this.#clock.unseenSteps,
      seed: this.#effect.seed,
      density: this.#effect.stage.density.share / 100,
      room: this.budget - this.living,
    };
    for (const running of this.#stepping) {
      const started = this.#options.now?.() ?? 0;
      const { compiled, population } = running;
      this.#beginTurn(running, from);
      population.keepPlaces();
      this.#rider.rideAlong(compiled, population, from, to);
      this.#clearFor(compiled);
      this.#midwife.giveBirth(running, birthStep, reading);
      this.#releaser.count = 0;
      if (compiled.front) this.#releaser.release(running, compiled.front, this.#midwife, birthStep, reading);
      this.#collider.keepVelocities(compiled, population);
      this.#mover.move(compiled, population, moment);
      this.#collider.collide(compiled, population, running.hits, moment);
      this.#endStanding(running, step + 1);
      this.#teller.tell(running, this.#inboxes, moment, this.#releaser);
      this.#bury(running, step + 1);
      running.microseconds = (this.#options.now?.() ?? 0) - started;
    }
    this.#step = step + 1;
    this.#stepsTaken++;
  }

  /** In a hold without a seam every turn counts its births anew. */
  #beginTurn(running: Running, time: number): void {
    const { population, travel } = running;
    if (!this.#clock.isSeamless || this.#clock.stepOfHold(time) !== 0) return;
    if (time <= this.#clock.opening && this.#clock.preRoll === 0) running.turnStart = population.numbered;
    population.numbered = running.turnStart;
    travel.metres = 0;
  }

  /** Who is born on another layer's particles draws from the living alone. */
  #clearFor({ layer }: CompiledLayer): void {
    if (layer.source.kind === 'particles') this.population(layer.source.layer);
  }

  #endStanding({ compiled, population }: Running, step: number): void {
    const time = this.#clock.timeOf(step);
    const isOver = time >= this.#clock.endsAt;
    if (isOver || time >= compiled.window.until) population.endStanding(step, isOver);
  }

  #bury({ population }: Running, step: number): void {
    const map = this.#arrays.address(0);
    population.bury(this.#kernels, step, map);
    population.compact(this.#kernels, map);
  }

  /** Most particle records a frame of this world can need, following layers included. */
  get mostRecords(): number {
    return this.#mostRecordsOf(this.#effect);
  }

  #mostRecordsOf(effect: Effect): number {
    return mostRecordsOf(effect, (id) => this.#runningOf(id)?.population.cap ?? 0);
  }

  /** Writes the present instant as a frame. One that lies in this world's memory is written in place. */
  writeFrame(frame: Frame): void {
    this.#framer.write(frame, this.#effect, drawnLayers(this.#effect, this.#running), {
      step: this.#step,
      rate: this.rate,
      clock: this.#clock,
      dials: dialShares(this.#effect),
      isExact: this.#isExact,
      scene: this.#scene,
    });
  }

  /** Hash of state and dress, by layer salt then birth order; null while the run is not exact. */
  hash(): string | null {
    if (!this.#isExact) return null;
    const drawn = drawnLayers(this.#effect, this.#running);
    const records = drawn.reduce((sum, { running }) => sum + running.population.living, 0);
    const frame = new Frame(new ArrayBuffer(Frame.bytes(records)));
    this.writeFrame(frame);
    return hashOf(this.#step, this.#running, frame);
  }
}

/** Records of all layers that are drawn, each with as many particles as the layer it shows may have. */
const mostRecordsOf = (effect: Effect, capOf: (id: string) => number): number =>
  effect.layers.order.reduce((sum, id) => sum + capOf(ownerOf(effect, id)), 0);

const aligned = (address: number): number => Math.ceil(address / 64) * 64;
