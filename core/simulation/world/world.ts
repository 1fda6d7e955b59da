import type { Effect, Lineage } from '../../document/index.ts';
import type { Rig } from '../../geometry/index.ts';
import { RIGID_WORDS, type Vec3 } from '../../maths/index.ts';
import { twinKernels, wasmKernels, type KernelBytes, type Kernels } from '../../kernels/index.ts';
import { EffectClock } from '../time/clock.ts';
import { compileEffect } from '../compile/effect.ts';
import { Ahead, lookBackOf, mostStanding } from './ahead.ts';
import { stepsTaken } from '../run/crew.ts';
import { newFrame, type Frame } from '../frames/frame.ts';
import { Framer } from '../frames/framing.ts';
import type { FrontReader } from '../fronts/front.ts';
import { hashOf } from './hashing.ts';
import { Kins, type Kin } from './kins.ts';
import { Inbox } from '../run/inbox.ts';
import { Mover } from '../run/4-move.ts';
import type { Population } from '../run/population.ts';
import { kinsOf, reachBetween, type Reach } from './reach.ts';
import type { Trail } from '../run/6-lay.ts';
import type { Running } from '../run/running.ts';
import { Scene } from '../scene/scene.ts';
import type { Announced } from '../time/signals.ts';
import { sourceOf, spotsOf } from './standing.ts';
import type { Strike } from '../sources/source.ts';
import { bindSurfaces, surfacesMet } from '../compile/surfaces.ts';
import { Collider } from '../run/5-collide.ts';
import { Hits } from '../run/hits.ts';
import { Stepper } from '../run/step.ts';
import { Tables } from '../values/tables.ts';
import type { FrameRoom } from '../frames/tripleBuffer.ts';
import { mostJointsOf, mostRecordsOf, WorldMemory } from './worldMemory.ts';
import { dialShares } from '../values/dials.ts';
import { drawnLayers } from '../frames/drawn.ts';
import type { Compiled, CompiledLayer } from '../compile/plan.ts';
import { struck } from '../run/struck.ts';
import type { DressMoment } from '../frames/moment.ts';

export const DEFAULT_RATE = 60;
export const DEFAULT_BUDGET = 100_000;

/** What happens to an effect from outside, in simulation time. */
export interface Inputs {
  /** The step in which the effect is let go; absent while it is held. */
  readonly letGoStep?: number;
  /** Blows from outside, in order. */
  readonly strikes?: readonly Strike[];
  /** Signals that were announced from outside, in order. */
  readonly signals?: readonly Announced[];
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
  /** Particles from which on a layer is shared with the crew; fewer cost more to share than to step. */
  readonly worthSharing?: number;
  /** Microseconds, for what each layer costs; nothing computed depends on it. */
  readonly now?: () => number;
  /** Bytes of past states that are kept, so that going back is quick. */
  readonly historyBytes?: number;
  /** Only these layers, and whoever hangs together with them, are ever computed. */
  readonly only?: ReadonlySet<string>;
  /** False: every run begins at zero, also where its end does not hang on all of it. */
  readonly skipsAhead?: boolean;
}

/** Who goes back will often go back further: so many steps more are exact then, and their states are kept. */
const GOING_BACK = 120;
/** Steps that must be saved for births to be counted beforehand. */
const WORTH_SKIPPING = 120;

/** A world of one effect: everything that is computed about it, step by step. */
export class World {
  readonly memory: WebAssembly.Memory;
  /** Where the frames lie in the memory (tripleBuffer.ts), and for how many particles; null without any. */
  readonly frames: ({ readonly address: number } & FrameRoom) | null;
  readonly rate: number;
  readonly budget: number;
  readonly #kernels: Kernels;
  readonly #options: WorldOptions;
  readonly #rigs: ReadonlyMap<string, Rig>;
  readonly #laid: WorldMemory;
  readonly #tables: Tables;
  readonly #stepper: Stepper;
  readonly #framer: Framer;
  #effect: Effect;
  #scene: Scene;
  #clock: EffectClock;
  /** Layers with particles of their own, by salt: no order on screen reaches what is computed. */
  #running: Running[];
  /** Points laid behind particles, a population for each layer that is drawn as trails. */
  #trails: Trail[] = [];
  #trailsOf: ReadonlyMap<Running, readonly Trail[]> = new Map();
  /** A frame that hashes are taken of. */
  #hashed: Frame | null = null;
  /** The same in the order in which they are stepped. */
  #stepping: Running[] = [];
  readonly #kins: Kins;
  #lineage: Lineage;
  #fronts: readonly FrontReader[];
  #inboxes: ReadonlyMap<string, Inbox> = new Map();
  #inputs: Inputs;
  #stepsTaken = 0;
  /** Where an effect without layers stands. */
  #idleStep = 0;

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
    const { compiled, trails: bound, lineage, fronts } = this.#compile();
    this.#lineage = lineage;
    this.#fronts = fronts;
    const caps = compiled.map((layer) => this.#capOf(layer));
    const laid = new WorldMemory(
      effect,
      compiled,
      caps,
      bound.map(({ most }) => most),
      options,
    );
    this.#laid = laid;
    this.memory = laid.memory;
    this.frames = laid.frames;
    const { buffer } = laid.memory;
    this.#kernels = options.kernels
      ? wasmKernels(options.kernels, this.memory)
      : twinKernels({ f32: new Float32Array(buffer), i32: new Int32Array(buffer) });
    this.#tables = new Tables(buffer, laid.tablesAt, laid.tableCount);
    const mover = new Mover(
      this.#kernels,
      buffer,
      laid.arrays,
      this.#tables,
      options.helpers ?? 0,
      options.worthSharing,
    );
    this.#stepper = new Stepper(this.#kernels, this.#room, mover, new Collider(laid.largest));
    this.#takeSurfaces();
    this.#framer = new Framer(this.#kernels, buffer, laid.dressesAt, laid.layerCount, laid.recordsAt, laid.arrays);
    this.#kins = new Kins(this.#kernels, buffer, this.#room, options.historyBytes);
    this.#running = compiled.map((layer, index) => runningOf(layer, laid.populations[index]!));
    this.#trails = bound.map((trail, index) => ({
      ...runningOf(trail.points, laid.trails[index]!),
      bound: trail,
      heads: this.#runningOf(trail.heads)!,
    }));
    this.#trailsOf = new Map(
      this.#running.map((running) => [running, this.#trails.filter(({ heads }) => heads === running)]),
    );
    this.#inboxes = new Map(this.#running.map(({ compiled: { id }, inbox }) => [id, inbox]));
    this.#order();
    for (const kin of this.#kins.all) this.#kins.begin(kin, this.#firstStep);
  }

  /** Address of room for an index a particle. */
  get #room(): number {
    return this.#laid.arrays.address(0);
  }

  #runningOf(layerId: string): Running | undefined {
    return this.#running?.find(({ compiled }) => compiled.id === layerId);
  }

  #order(): void {
    const { only } = this.#options;
    // Where all together might reach the budget, each layer's births hang on how many others live.
    const ids = this.#isLoose ? kinsOf(this.#effect) : [this.#effect.layers.order];
    const kins = ids.map((kin) =>
      kin.flatMap((id) => [
        ...this.#running.filter(({ compiled }) => compiled.id === id),
        ...this.#trails.filter(({ bound }) => bound.id === id),
      ]),
    );
    this.#kins.all = kins.filter(
      (kin) => kin.length > 0 && (!only || kin.some(({ compiled }) => only.has(compiled.id))),
    );
    const active = new Set(this.#kins.all.flat());
    this.#stepping = this.#lineage.order.map((id) => this.#runningOf(id)!).filter((running) => active.has(running));
  }

  #capOf(layer: Pick<CompiledLayer, 'cap'>): number {
    return Math.min(layer.cap, this.budget);
  }

  /** The step up to which all is computed. */
  get step(): number {
    let least = Infinity;
    for (const { at } of this.#stepping) least = Math.min(least, at);
    return least === Infinity ? this.#idleStep : least;
  }
  /** Steps computed since this world was made, one for each layer that was, those computed again included. */
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
    return this.#stepping.every(({ isExact }) => isExact);
  }
  /** Layers that are not yet what a run from zero gives. */
  get inexact(): ReadonlySet<string> {
    return new Set(this.#stepping.flatMap(({ compiled, isExact }) => (isExact ? [] : [compiled.id])));
  }
  /** Bytes of past states that are kept. */
  get historyBytes(): number {
    return this.#kins.history.bytes;
  }
  get living(): number {
    return this.#running.reduce((sum, { population }) => sum + population.living, 0);
  }
  /** True when the effect has ended and nothing of it lives. */
  get isOver(): boolean {
    return this.#clock.timeOf(this.step) >= this.#clock.endsAt && this.living === 0;
  }
  /** What each layer with particles of its own has, and what its last step cost. */
  counts(): {
    salt: number;
    living: number;
    born: number;
    refused: number;
    /** Births that found no particle of another layer to be born on. */
    lost: number;
    microseconds: number;
  }[] {
    return this.#running.map(({ compiled, population, microseconds }) => ({
      salt: compiled.layer.salt,
      living: population.living,
      born: population.born,
      refused: population.refused,
      lost: population.lost,
      microseconds,
    }));
  }
  /** The particles of a layer, the dead cleared away: all places up to `count` are taken by the living. */
  population(layerId: string): Population | undefined {
    const population = this.#runningOf(layerId)?.population;
    population?.compact(this.#kernels, this.#room, true);
    return population;
  }
  /** The particles of every layer, and the points of every trail, by salt; the dead cleared away. */
  states(): { id: string; population: Population }[] {
    return [...this.#running, ...this.#trails].map(({ compiled, population }) => {
      population.compact(this.#kernels, this.#room, true);
      return { id: compiled.id, population };
    });
  }
  /** Skin matrices of a thing on the stage at the present instant. */
  skinOf(thingId: string): Float32Array | undefined {
    return this.#scene.thing(thingId)?.meshTo.matrices;
  }
  /** Impacts of a layer's particles in the last step. */
  hits(layerId: string): Hits | undefined {
    return this.#runningOf(layerId)?.hits;
  }
  /** Points that lie behind the particles of a layer that is drawn as trails, and how many had no room. */
  laid(layerId: string): { living: number; refused: number } | undefined {
    const trail = this.#trails.find(({ bound }) => bound.id === layerId);
    return trail && { living: trail.population.living, refused: trail.population.refused };
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
    this.#stepper.collider.take(
      bindSurfaces({ effect: this.#effect, scene: this.#scene, clock: this.#clock, rigs: this.#rigs, dials }),
    );
  }

  #compile(): Compiled {
    return compileEffect(this.#effect, {
      scene: this.#scene,
      clock: this.#clock,
      populationOf: (id) => this.#runningOf(id)?.population ?? null,
      strikes: () => this.#inputs.strikes ?? [],
      announced: () => this.#inputs.signals ?? [],
    });
  }

  /** The step before which nothing is computed: below 0 with pre-roll. */
  get #firstStep(): number {
    return -this.#clock.unseenSteps;
  }

  /** The step in which the effect is let go, or that it is held on. What was computed before that step stays. */
  setLetGo(letGoStep: number | undefined): void {
    const before = this.#inputs.letGoStep;
    if (before === letGoStep) return;
    const { strikes = [], signals = [] } = this.#inputs;
    this.#inputs = { strikes, signals, ...(letGoStep === undefined ? {} : { letGoStep }) };
    this.#takeClock();
    this.#takeCompiled(this.#compile());
    // The last step before it already ends where the closing begins.
    const same = Math.min(before ?? Infinity, letGoStep ?? Infinity) - 1;
    for (const { compiled } of [...this.#running, ...this.#trails]) this.#kins.history.forgetAfter(compiled.id, same);
    for (const kin of this.#kins.all) if (kin[0]!.isExact) this.#kins.goBack(kin, same, this.#firstStep);
  }

  /** Layers that are ever computed here. */
  get computed(): ReadonlySet<string> {
    return new Set(this.#stepping.map(({ compiled }) => compiled.id));
  }

  /** Lets all that is not exact begin anew when it is next advanced. */
  startAnew(): void {
    for (const kin of this.#kins.all) if (!kin[0]!.isExact) this.#kins.begin(kin, this.#firstStep);
  }

  /** Takes the moment of letting go from now on. */
  letGo(): void {
    const { step } = this;
    this.setLetGo(step);
    this.advance(step);
  }

  /** Blows from outside. What was computed before the first that differs stays. */
  setStrikes(strikes: readonly Strike[]): void {
    const first = firstDiffering(this.strikes, strikes);
    this.#inputs = { ...this.#inputs, strikes };
    this.#keepUpTo(first);
  }

  get signals(): readonly Announced[] {
    return this.#inputs.signals ?? [];
  }
  /** Signals from outside. What was computed before the first that differs stays. */
  setSignals(signals: readonly Announced[]): void {
    const first = firstDiffering(this.signals, signals);
    this.#inputs = { ...this.#inputs, signals };
    this.#keepUpTo(first);
  }
  /** Announces a signal at the present instant. */
  announce(signal: string): void {
    this.setSignals([...this.signals, { signal, step: this.step }]);
  }

  /** Something from outside is another from a step on: what was computed before it stays. */
  #keepUpTo(first: number): void {
    if (first === Infinity) return;
    for (const { compiled } of [...this.#running, ...this.#trails])
      this.#kins.history.forgetAfter(compiled.id, first);
    for (const kin of this.#kins.all) if (kin[0]!.isExact) this.#kins.goBack(kin, first, this.#firstStep);
  }

  /**
   * Strikes at the present instant from one place of the world toward another: what is met first is hit, a surface of the
   * effect or a thing on the stage; where nothing is, the nearest point of the way to the effect's middle.
   */
  strike(from: Vec3, to: Vec3, strength = 1): Strike {
    const { step } = this;
    const time = this.#clock.timeOf(step);
    this.#scene.pose(time, time);
    const strike = { step, ...struck(this.#stepper.collider, this.#scene, time, from, to), strength };
    this.setStrikes([...(this.#inputs.strikes ?? []), strike]);
    return strike;
  }

  /** Where a thing stands on the ground at the present instant, x and z; null where there is none. */
  feetOf(thingId: string): [number, number] | null {
    const thing = this.#scene.thing(thingId);
    if (!thing) return null;
    const m = new Float64Array(16);
    thing.rootInto(this.#clock.timeOf(this.step), m);
    return [m[12]!, m[14]!];
  }

  /**
   * The packed rigid place of what a layer's source stands on as a whole, at the present instant: the feet of a thing, the
   * effect's frame, the world. Valid until the next call.
   */
  standOf(salt: number): Float64Array {
    const { layers } = this.#effect;
    const id = layers.order.find((layer) => layers.byId[layer]!.salt === salt);
    this.#scene.standInto(
      this.#stand,
      id === undefined ? null : sourceOf(this.#effect, id),
      this.#clock.timeOf(this.step),
    );
    return this.#stand;
  }
  readonly #stand = new Float64Array(RIGID_WORDS);

  get strikes(): readonly Strike[] {
    return this.#inputs.strikes ?? [];
  }

  /** Takes over another world's present and past states of layers; of the same document, or of one that does not reach them. */
  takeLayers(other: World, ids: ReadonlySet<string>): void {
    for (const running of this.#running) {
      const { id } = running.compiled;
      const theirs = ids.has(id) ? other.#runningOf(id) : undefined;
      if (theirs) this.#kins.take(running, theirs, other.#kins);
    }
    for (const trail of this.#trails) {
      const { id, heads } = trail.bound;
      const theirs = ids.has(heads) ? other.#trails.find(({ bound }) => bound.id === id) : undefined;
      if (theirs) this.#kins.take(trail, theirs, other.#kins);
    }
  }

  /** Takes over from a world of an earlier document whatever the changes since do not reach. */
  inherit(before: World): void {
    const reach = reachBetween(before.#effect, this.#effect);
    const isAlike =
      reach.layers !== 'all' &&
      this.rate === before.rate &&
      this.budget === before.budget &&
      this.#inputs.letGoStep === before.#inputs.letGoStep &&
      JSON.stringify([this.strikes, this.signals]) === JSON.stringify([before.strikes, before.signals]) &&
      surfacesMet(this.#effect) === surfacesMet(before.#effect) &&
      [this, before].every((world) => world.#running.length === 0 || world.#isLoose);
    if (!isAlike) return;
    const alike = (mine: Running | undefined, theirs: Running | undefined) =>
      mine && theirs && mine.population.cap === theirs.population.cap && theirs.isExact;
    const same = (id: string) =>
      alike(this.#runningOf(id), before.#runningOf(id)) &&
      this.#trails
        .filter(({ bound }) => bound.heads === id)
        .every((trail) =>
          alike(
            trail,
            before.#trails.find(({ bound }) => bound.id === trail.bound.id),
          ),
        );
    const kept = kinsOf(this.#effect).filter((kin) =>
      kin.every((id) => !this.#runningOf(id) || (!(reach.layers as ReadonlySet<string>).has(id) && same(id))),
    );
    this.takeLayers(before, new Set(kept.flat()));
  }

  /** Whether no layer's births hang on how many of the others live. */
  get #isLoose(): boolean {
    const setOff = new Set(this.#running.flatMap(({ compiled }) => compiled.links.map(({ to }) => to)));
    const most = (running: Running) =>
      Math.min(running.population.cap, mostStanding(running, setOff.has(running.compiled.id)));
    return this.#running.reduce((sum, running) => sum + most(running), 0) <= this.budget;
  }

  #takeCompiled({ compiled, trails, lineage, fronts }: Compiled): void {
    this.#aheads = [];
    this.#lineage = lineage;
    this.#fronts = fronts;
    compiled.forEach((layer, index) => (this.#running[index]!.compiled = layer));
    trails.forEach((bound, index) => {
      const trail = this.#trails[index]!;
      trail.bound = bound;
      trail.compiled = bound.points;
    });
    this.#order();
    this.#takeSurfaces();
    this.#tables.forget();
    this.#stepper.forget();
    this.#framer.forget();
  }

  /**
   * Goes on with a changed document. Layers that the change reaches begin anew when they are next advanced; or, with
   * `settles`, go on from where they are and are not exact until then. `reach` is how far the change reaches, where it is known. All others keep their states. Returns false, and
   * changes nothing, when the change needs a new world: other layers or caps, another figure, or more forces than there is
   * room for.
   */
  adopt(effect: Effect, settles = false, reach: Reach = reachBetween(this.#effect, effect)): boolean {
    const kept = { effect: this.#effect, scene: this.#scene, clock: this.#clock };
    const sameThings = JSON.stringify(effect.stage.things) === JSON.stringify(this.#effect.stage.things);
    const sameSurfaces = surfacesMet(effect) === surfacesMet(this.#effect);
    this.#effect = effect;
    if (JSON.stringify(effect.stage) !== JSON.stringify(kept.effect.stage))
      this.#scene = new Scene(effect.stage, this.#rigs);
    this.#takeClock();
    const made = this.#compile();
    const { compiled, trails } = made;
    const caps = compiled.map((layer) => this.#capOf(layer));
    const fits =
      sameThings &&
      sameSurfaces &&
      this.#laid.holds(effect, compiled, caps, trails) &&
      trails.every(({ id, heads }, index) => {
        const { bound } = this.#trails[index]!;
        return bound.id === id && bound.heads === heads;
      }) &&
      compiled.every(({ id, layer }, index) => {
        const old = this.#running[index]!.compiled;
        // Whoever goes on from where it is keeps the spots it was born on.
        return old.id === id && (!settles || spotsOf(layer.source) === spotsOf(old.layer.source));
      });
    if (!fits) {
      this.#effect = kept.effect;
      this.#scene = kept.scene;
      this.#clock = kept.clock;
      this.#scene.clock = kept.clock;
      return false;
    }
    this.#takeCompiled(made);
    if (reach.kind !== 'state') return true;
    for (const kin of this.#kins.all) {
      const { layers } = reach;
      if (layers !== 'all' && !kin.some(({ compiled: { id } }) => layers.has(id))) continue;
      for (const running of kin) this.#kins.history.forget(running.compiled.id);
      if (!settles) this.#kins.begin(kin, this.#firstStep);
      else for (const running of kin) running.isExact = running.at === this.#firstStep;
    }
    return true;
  }

  /**
   * Computes up to `toStep`, from where each layer is or from the nearest state before it that is known. Returns early when
   * `isCancelled` says so.
   */
  advance(toStep: number, isCancelled?: () => boolean): void {
    for (const kin of this.#kins.all)
      if (this.#kins.goBack(kin, toStep, this.#firstStep)) this.#wentBack.add(kin[0]!.compiled);
    this.#idleStep = toStep;
    for (const kin of this.#kins.all) if (!this.#skipAhead(kin, toStep, isCancelled)) return;
    while (this.step < toStep && !isCancelled?.()) this.#advanceOne(this.step);
  }

  /**
   * Lets a group that stands before its first step begin no further back than what will live at `toStep` hangs on. Returns
   * false while that is still being counted.
   */
  #skipAhead(kin: Kin, toStep: number, isCancelled?: () => boolean): boolean {
    const [first] = kin as readonly [Running];
    const firstStep = this.#firstStep;
    if (first.at !== firstStep || !first.isExact || this.#fromZero.has(first.compiled)) return true;
    let ahead = this.#aheads.find((each) => each.isFor(kin));
    // One that was begun for a later step starts too late.
    if (!ahead || ahead.toStep > toStep) {
      this.#aheads = this.#aheads.filter((each) => each !== ahead);
      const isPlain =
        this.#options.skipsAhead !== false && this.#isLoose && kin.every((running) => !('bound' in running));
      const lookBack = isPlain ? lookBackOf(kin, this.rate) : Infinity;
      const aim = toStep - (this.#wentBack.has(first.compiled) ? GOING_BACK : 0);
      if (aim - lookBack < firstStep + WORTH_SKIPPING) return true;
      ahead = new Ahead(kin, firstStep, lookBack, aim, {
        clock: this.#clock,
        scene: this.#scene,
        dials: dialShares(this.#effect),
        seed: this.#effect.seed,
      });
      this.#aheads.push(ahead);
    }
    if (!ahead.advance(isCancelled)) return false;
    this.#aheads = this.#aheads.filter((each) => each !== ahead);
    if (ahead.hadRoom) ahead.place();
    else this.#fromZero.add(first.compiled);
    return true;
  }
  #aheads: Ahead[] = [];
  /** The first layers of groups that somebody went back with: they may go on to do so. */
  readonly #wentBack = new WeakSet<CompiledLayer>();
  /** The first layers of groups that had no room for all their births: what lives of those hangs on all that went before. */
  readonly #fromZero = new WeakSet<CompiledLayer>();

  /** Computes a step for whoever stands at its start. */
  #advanceOne(step: number): void {
    const from = this.#clock.timeOf(step);
    const to = this.#clock.timeOf(step + 1);
    this.#scene.pose(from, to);
    const dials = dialShares(this.#effect);
    const moment = { step, from, to, rate: this.rate, clock: this.#clock, scene: this.#scene, dials };
    const births = {
      ...moment,
      isFirst: step === this.#firstStep,
      seed: this.#effect.seed,
      density: this.#effect.stage.density.share / 100,
      room: this.budget - this.living,
    };
    const whole = { ...moment, births, inboxes: this.#inboxes };
    for (const running of this.#stepping) {
      if (running.at !== step) continue;
      const started = this.#options.now?.() ?? 0;
      const { source } = running.compiled.layer;
      const parent = source.kind === 'particles' ? this.#runningOf(source.layer)?.population : undefined;
      this.#stepper.step(running, this.#trailsOf.get(running) ?? [], parent, whole);
      this.#stepsTaken++;
      running.microseconds = (this.#options.now?.() ?? 0) - started;
    }
    this.#kins.keep(step + 1);
  }

  /** Most particle records a frame of this world can need, following layers included. */
  get mostRecords(): number {
    return mostRecordsOf(this.#effect, (id) => this.#runningOf(id)?.population.cap ?? 0);
  }

  /** Most joints of ribbons a frame of this world can need. */
  get mostJoints(): number {
    return mostJointsOf(this.#effect, (id) => this.#runningOf(id)?.population.cap ?? 0);
  }

  /** Writes the present instant as a frame. One that lies in this world's memory is written in place. */
  writeFrame(frame: Frame): void {
    const { step } = this;
    const to = this.#clock.timeOf(step);
    this.#scene.pose(step > this.#firstStep ? this.#clock.timeOf(step - 1) : to, to);
    this.#framer.write(frame, this.#effect, drawnLayers(this.#effect, this.#running), this.#trails, {
      ...this.#dressMoment(),
      isExact: this.isExact,
      scene: this.#scene,
      fronts: this.#fronts,
    });
  }

  #dressMoment(): DressMoment {
    return { step: this.step, rate: this.rate, clock: this.#clock, dials: dialShares(this.#effect) };
  }

  /**
   * What a layer makes of each of its living particles now, by the words of a record (frame.ts), in the order of their births:
   * its own, or those of the layer it follows; of a ribbon, the particles that draw it. Empty where the layer has none.
   */
  records(layerId: string): Float32Array {
    return this.#framer.records(this.#effect, drawnLayers(this.#effect, this.#running), layerId, this.#dressMoment());
  }

  /** Hash of state and dress, by layer salt then birth order; null while the run is not exact. */
  hash(): string | null {
    if (!this.isExact) return null;
    if (this.#hashed?.mostJoints !== this.mostJoints || this.#hashed.mostRecords !== this.mostRecords)
      this.#hashed = newFrame(this);
    const frame = this.#hashed;
    this.writeFrame(frame);
    return hashOf(this.step, [...this.#running, ...this.#trails], frame);
  }
}

/** The step of the first of what came from outside in which two lists differ; Infinity where they do not. */
function firstDiffering(before: readonly { step: number }[], after: readonly { step: number }[]): number {
  const same = after.findIndex((one, n) => JSON.stringify(one) !== JSON.stringify(before[n]));
  const at = same < 0 ? Math.min(after.length, before.length) : same;
  return Math.min(...[after, before].map((list) => list[at]?.step ?? Infinity));
}

const runningOf = (compiled: CompiledLayer, population: Population): Running => ({
  compiled,
  population,
  travel: { metres: 0 },
  hits: new Hits(),
  inbox: new Inbox(),
  turnStart: 0,
  at: 0,
  exactFrom: -Infinity,
  isExact: true,
  microseconds: 0,
});
