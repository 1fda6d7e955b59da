import type { Effect, Vector } from '../../document/index.ts';
import { RIGID_WORDS, type Vec3 } from '../../maths/index.ts';
import type { CompiledDocument } from '../compile/plan.ts';
import { surfacesMet } from '../compile/surfaces.ts';
import { Composer, type FramePart } from '../frames/composer.ts';
import { newFrame, type Frame, type FrameSizes } from '../frames/frame.ts';
import type { FrameMoment } from '../frames/framing.ts';
import type { Hits } from '../run/hits.ts';
import type { Population } from '../run/population.ts';
import { struck } from '../run/struck.ts';
import { NOWHERE, type Placed } from '../scene/base.ts';
import type { Strike } from '../sources/source.ts';
import type { EffectClock } from '../time/clock.ts';
import type { Announced } from '../time/signals.ts';
import {
  compileInstance,
  DEFAULT_BUDGET,
  sameText,
  type Compiled,
  type InstanceAmid,
  type InstanceOptions,
} from './compiled.ts';
import { withGiven } from './given.ts';
import { hashOf } from './hashing.ts';
import type { HistoryBudget } from './history.ts';
import { countsOf, type LayerCount } from './counts.ts';
import { inheritable, takeLayers } from './inherit.ts';
import { firstDiffering } from './inputs.ts';
import { Layers } from './layers.ts';
import { needsOf, serves, type Needs } from './needs.ts';
import { reachBetween, type Reach } from './reach.ts';
import { Route } from './route.ts';
import type { Shared } from './shared.ts';
import { sourceOf, spotsOf } from './standing.ts';

/** One effect in a world: everything that is computed about it, step by step. Its bits hang on nothing else in the world. */
export class Instance {
  readonly rate: number;
  readonly budget: number;
  /** The step of the world at which its own step 0 lies. */
  readonly start: number;
  /** A number that no other instance of its world has had. */
  readonly number: number;
  /** What is reserved for it, and where. */
  readonly needs: Needs;
  readonly block: number;
  readonly #shared: Shared;
  readonly #amid: InstanceAmid;
  readonly #options: InstanceOptions;
  readonly #live: InstanceAmid['live'];
  readonly #layers: Layers;
  readonly #route: Route;
  readonly #changed: () => void;
  /** The document as it was handed in, and as it is computed. */
  #effect: Effect;
  #document: CompiledDocument;
  readonly #stand = new Float64Array(RIGID_WORDS);
  readonly #composer = new Composer();
  /** A frame that hashes are taken of. */
  #hashed: Frame | null = null;

  constructor(
    shared: Shared,
    made: Compiled,
    block: number,
    number: number,
    history: HistoryBudget,
    changed: () => void,
  ) {
    const { document, needs, amid } = made;
    const { options, live } = amid;
    [this.#shared, this.#amid, this.#options, this.#live] = [shared, amid, options, live];
    [this.#effect, this.#document, this.#changed] = [made.effect, document, changed];
    [this.needs, this.block, this.number] = [needs, block, number];
    this.rate = shared.rate;
    this.budget = options.budget ?? DEFAULT_BUDGET;
    this.start = options.start ?? 0;
    document.scene.clock = document.clock;
    const { budget, rate } = this;
    this.#layers = new Layers(shared, block, needs, document, history, { budget, ...options });
    live.layers = this.#layers;
    this.#route = new Route(this.#layers, document, {
      budget,
      rate,
      skipsAhead: options.skipsAhead ?? true,
      ...(shared.now ? { now: shared.now } : {}),
    });
    this.startAnew(true);
  }

  get memory(): WebAssembly.Memory {
    return this.#shared.memory;
  }
  /** Where the frames of its world lie (frames/tripleBuffer.ts), of so many bytes each; null without any. */
  get frames(): { readonly address: number; readonly bytes: number } | null {
    return this.#shared.frames;
  }
  /** The step up to which all is computed, its own. */
  get step(): number {
    return this.#route.step;
  }
  /** Steps computed since it was made, one for each layer that was, those computed again included. */
  get stepsTaken(): number {
    return this.#route.stepsTaken;
  }
  get clock(): EffectClock {
    return this.#document.clock;
  }
  get effect(): Effect {
    return this.#effect;
  }
  /** False after a change was taken over in mid-run: what is seen is then not yet what a run from zero gives. */
  get isExact(): boolean {
    return this.#layers.stepping.every(({ isExact }) => isExact);
  }
  /** Layers that are not yet what a run from zero gives. */
  get inexact(): ReadonlySet<string> {
    return new Set(this.#layers.stepping.flatMap(({ compiled, isExact }) => (isExact ? [] : [compiled.id])));
  }
  /** Bytes of past states that are kept. */
  get historyBytes(): number {
    return this.#layers.kins.history.bytes;
  }
  get living(): number {
    return this.#layers.living;
  }
  /** True when the effect has ended and nothing of it lives. */
  get isOver(): boolean {
    return this.clock.timeOf(this.step) >= this.clock.endsAt && this.living === 0;
  }
  /** Layers that are ever computed here. */
  get computed(): ReadonlySet<string> {
    return new Set(this.#layers.stepping.map(({ compiled }) => compiled.id));
  }
  /** The most that it writes into a frame. */
  get frameSizes(): FrameSizes {
    return this.needs.frame;
  }

  /** What each layer with particles of its own has, and what its last step cost. */
  counts(): LayerCount[] {
    return countsOf(this.#layers.running);
  }
  #compacted(population: Population): Population {
    population.compact(this.#shared.kernels, this.#shared.scratch.indicesAt, true);
    return population;
  }
  /** The particles of a layer, the dead cleared away: all places up to `count` are taken by the living. */
  population(layerId: string): Population | undefined {
    const found = this.#layers.of(layerId)?.population;
    return found && this.#compacted(found);
  }
  /** The particles of every layer, and the points of every trail, by salt; the dead cleared away. */
  states(): { id: string; population: Population }[] {
    return this.#layers.all.map(({ compiled, population }) => ({
      id: compiled.id,
      population: this.#compacted(population),
    }));
  }
  /** Skin matrices of a thing on the stage at the present instant. */
  skinOf(thingId: string): Float32Array | undefined {
    return this.#document.scene.thing(thingId)?.meshTo.matrices;
  }
  /** Impacts of a layer's particles in the last step. */
  hits(layerId: string): Hits | undefined {
    return this.#layers.of(layerId)?.hits;
  }
  /** Points that lie behind the particles of a layer that is drawn as trails, and how many had no room. */
  laid(layerId: string): { living: number; refused: number } | undefined {
    const trail = this.#layers.trailOf(layerId);
    return trail && { living: trail.population.living, refused: trail.population.refused };
  }
  /** Where a thing stands on the ground at the present instant, x and z; null where there is none. */
  feetOf(thingId: string): [number, number] | null {
    const thing = this.#document.scene.thing(thingId);
    if (!thing) return null;
    const m = new Float64Array(16);
    thing.rootInto(this.clock.timeOf(this.step), m);
    return [m[12]!, m[14]!];
  }
  /** The packed rigid place of what a layer's source stands on as a whole, at the present instant; until the next call. */
  standOf(salt: number): Float64Array {
    const { effect, scene } = this.#document;
    const id = effect.layers.order.find((layer) => effect.layers.byId[layer]!.salt === salt);
    scene.standInto(this.#stand, id === undefined ? null : sourceOf(effect, id), this.clock.timeOf(this.step));
    return this.#stand;
  }

  get strikes(): readonly Strike[] {
    return this.#live.inputs.strikes ?? [];
  }
  /** Blows from outside. What was computed before the first that differs stays. */
  setStrikes(strikes: readonly Strike[]): void {
    const first = firstDiffering(this.strikes, strikes);
    this.#live.inputs = { ...this.#live.inputs, strikes };
    this.#keepUpTo(first);
  }
  get signals(): readonly Announced[] {
    return this.#live.inputs.signals ?? [];
  }
  /** Signals from outside. What was computed before the first that differs stays. */
  setSignals(signals: readonly Announced[]): void {
    const first = firstDiffering(this.signals, signals);
    this.#live.inputs = { ...this.#live.inputs, signals };
    this.#keepUpTo(first);
  }
  /** Announces a signal at the present instant. */
  announce(signal: string): void {
    this.setSignals([...this.signals, { signal, step: this.step }]);
  }
  /**
   * Strikes at the present instant from one place of the world toward another: what is met first is hit, a surface or a
   * thing on the stage; where nothing is, the nearest point of the way to the effect's middle.
   */
  strike(from: Vec3, to: Vec3, strength = 1): Strike {
    const { step } = this;
    const { scene } = this.#document;
    const time = this.clock.timeOf(step);
    scene.pose(time, time);
    const strike = { step, ...struck(this.#layers.stepper.collider, scene, time, from, to), strength };
    this.setStrikes([...this.strikes, strike]);
    return strike;
  }
  get places(): readonly Placed[] {
    return this.#live.inputs.places ?? NOWHERE;
  }
  /** Where the whole effect was put. What was computed before it goes to the first that differs stays. */
  setPlaces(places: readonly Placed[], first = firstDiffering(this.places, places) - 1): void {
    const moved = this.places.length > 0;
    this.#live.inputs = { ...this.#live.inputs, places };
    // What is compiled for an effect that stands still does not hold for one that is moved.
    if (moved !== places.length > 0) this.#commit(this.#compile(this.#document.effect));
    this.#keepUpTo(first);
  }
  /** Puts the whole effect elsewhere: it is there when the next step ends. */
  place(at: Vector, turn: Vector = [0, 0, 0]): void {
    const step = this.step + 1;
    const before = this.places.at(-1)?.step === step ? this.places.slice(0, -1) : this.places;
    this.setPlaces([...before, { step, at, turn }], step);
  }
  get #outside(): object {
    return [this.strikes, this.signals, this.places, this.#live.inputs.letGoStep ?? null];
  }

  /** Something from outside is another from a step on: what was computed before it stays. */
  #keepUpTo(first: number): void {
    if (first === Infinity) return;
    const { kins, all } = this.#layers;
    for (const { compiled } of all) kins.history.forgetAfter(compiled.id, first);
    for (const kin of kins.all) if (kin[0]!.isExact) kins.goBack(kin, first, this.#route.firstStep);
  }

  /** The step in which the effect is let go, or that it is held on. What was computed before that step stays. */
  setLetGo(letGoStep: number | undefined): void {
    const before = this.#live.inputs.letGoStep;
    if (before === letGoStep) return;
    const { strikes, signals, places } = this;
    this.#live.inputs = { strikes, signals, places, ...(letGoStep === undefined ? {} : { letGoStep }) };
    this.#commit(this.#compile(this.#document.effect));
    // The last step before it already ends where the closing begins.
    this.#keepUpTo(Math.min(before ?? Infinity, letGoStep ?? Infinity) - 1);
  }
  /** Takes the moment of letting go from now on. */
  letGo(): void {
    const { step } = this;
    this.setLetGo(step);
    this.advance(step);
  }

  /** Lets all that is not exact, or with `isAll` everything, begin anew when it is next advanced. */
  startAnew(isAll = false): void {
    const { kins } = this.#layers;
    for (const kin of kins.all) if (isAll || !kin[0]!.isExact) kins.begin(kin, this.#route.firstStep);
  }

  /** Takes over another instance's present and past states of layers; of the same document, or of one that does not reach them. */
  takeLayers(other: Instance, ids: ReadonlySet<string>): void {
    takeLayers(this.#layers, other.#layers, ids);
  }

  /** Takes over from an instance of an earlier document whatever the changes since do not reach. */
  inherit(before: Instance): void {
    const [mine, theirs] = [this.#document.effect, before.#document.effect];
    const isAlike =
      this.rate === before.rate &&
      this.budget === before.budget &&
      sameText(this.#outside, before.#outside) &&
      surfacesMet(mine) === surfacesMet(theirs) &&
      [this, before].every((one) => one.#layers.running.length === 0 || one.#layers.isLoose);
    if (!isAlike) return;
    const ids = inheritable(mine, this.#layers, before.#layers, reachBetween(theirs, mine));
    takeLayers(this.#layers, before.#layers, ids);
  }

  #compile(effect: Effect): CompiledDocument {
    return compileInstance(effect, this.#amid, this.#document);
  }

  /** Whether a compiled document can be gone on with in the room there is; `settles`: by particles that stay where they are. */
  #fits(next: CompiledDocument, settles: boolean): boolean {
    const now = this.#document;
    return (
      sameText(next.effect.stage.things, now.effect.stage.things) &&
      surfacesMet(next.effect) === surfacesMet(now.effect) &&
      serves(this.needs, needsOf(next, this.budget)) &&
      next.trails.every(({ id, heads }, n) => id === now.trails[n]!.id && heads === now.trails[n]!.heads) &&
      next.compiled.every(({ id, layer }, n) => {
        const old = now.compiled[n]!;
        // Whoever goes on from where it is keeps the spots it was born on.
        return old.id === id && (!settles || spotsOf(layer.source) === spotsOf(old.layer.source));
      })
    );
  }

  #commit(document: CompiledDocument): void {
    if (document.scene !== this.#document.scene) this.#document.scene.leave();
    this.#document = document;
    document.scene.clock = document.clock;
    this.#layers.take(document);
    this.#route.take(document);
    this.#composer.forget();
    this.#changed();
  }

  /**
   * Goes on with a changed document. Layers that the change reaches begin anew when they are next advanced; or, with
   * `settles`, go on from where they are and are not exact until then. `reach` is how far the change reaches, where it is
   * known. All others keep their states. Returns false, and changes nothing, when the change needs other room: other layers
   * or caps, another figure, or more forces than there is room for.
   */
  adopt(effect: Effect, settles = false, reach: Reach = reachBetween(this.#effect, effect)): boolean {
    const next = this.#compile(withGiven(effect, this.#options));
    if (!this.#fits(next, settles)) return false;
    this.#effect = effect;
    this.#commit(next);
    if (reach.kind !== 'state') return true;
    const { kins } = this.#layers;
    for (const kin of kins.all) {
      const { layers } = reach;
      if (layers !== 'all' && !kin.some(({ compiled: { id } }) => layers.has(id))) continue;
      for (const running of kin) kins.history.forget(running.compiled.id);
      if (!settles) kins.begin(kin, this.#route.firstStep);
      else for (const running of kin) running.isExact = running.at === this.#route.firstStep;
    }
    return true;
  }

  /** Computes up to `toStep` of its own, from the nearest state that is known. Returns early when `isCancelled` says so. */
  advance(toStep: number, isCancelled?: () => boolean): void {
    this.#route.advance(toStep, isCancelled);
  }

  /** Its part of a frame of the present instant. `looks`: instances of the same number are drawn alike. */
  framePart(looks: number): FramePart {
    const { step } = this;
    const { clock, scene, dials, fronts, effect } = this.#document;
    const to = clock.timeOf(step);
    scene.pose(step > this.#route.firstStep ? clock.timeOf(step - 1) : to, to);
    const moment: FrameMoment = { step, rate: this.rate, clock, dials, isExact: this.isExact, scene, fronts };
    const { framer, running, trails } = this.#layers;
    return {
      instance: this.number,
      looks,
      framer,
      effect,
      running,
      trails,
      moment,
      mostJoints: this.needs.frame.joints,
    };
  }

  /** Writes the present instant as a frame, with nothing else of its world. */
  writeFrame(frame: Frame): void {
    this.#composer.write(frame, [this.framePart(0)], this.step, this.rate);
  }

  /** Hash of state and dress, by layer salt then birth order; null while the run is not exact. */
  hash(): string | null {
    if (!this.isExact) return null;
    const frame = (this.#hashed ??= newFrame(this));
    this.writeFrame(frame);
    return hashOf(this.step, this.#layers.all, frame);
  }

  /**
   * What a layer makes of each of its living particles now, by the words of a record (frames/frame.ts), in the order of their
   * births: its own, or those of the layer it follows; of a ribbon, the particles that draw it. Empty where the layer has none.
   */
  records(layerId: string): Float32Array {
    const { step, rate } = this;
    const { clock, dials, effect } = this.#document;
    return this.#layers.framer.records(effect, this.#layers.running, layerId, { step, rate, clock, dials });
  }
  /** Forgets what it keeps of the past, and lets go of the poses that others may share: it leaves its world. */
  leave(): void {
    this.#layers.kins.history.clear();
    this.#document.scene.leave();
  }
}
