import type { CompiledDocument, CompiledLayer } from '../compile/plan.ts';
import type { WorldStep } from '../run/step.ts';
import type { Running } from '../run/running.ts';
import { Ahead, lookBackOf } from './ahead.ts';
import type { Kin } from './history.ts';
import type { Layers } from './layers.ts';

/** Who goes back will often go back further: so many steps more are exact then, and their states are kept. */
const GOING_BACK = 120;
/** Steps that must be saved for births to be counted beforehand. */
const WORTH_SKIPPING = 120;

/** How an instance's layers get from step to step. */
export interface RouteOptions {
  readonly rate: number;
  readonly budget: number;
  readonly skipsAhead: boolean;
  readonly now?: () => number;
}

/** Takes the layers of an instance to any step: from a state that is known, from zero, or from where they are. */
export class Route {
  readonly #layers: Layers;
  readonly #options: RouteOptions;
  #document: CompiledDocument;
  #aheads: Ahead[] = [];
  /** The first layers of groups that somebody went back with: they may go on to do so. */
  readonly #wentBack = new WeakSet<CompiledLayer>();
  /** The first layers of groups that had no room for all their births: what lives of those hangs on all that went before. */
  readonly #fromZero = new WeakSet<CompiledLayer>();
  /** Steps computed so far, one for each layer that was, those computed again included. */
  stepsTaken = 0;
  /** Where an effect without layers stands. */
  #idleStep = 0;
  /** What a step reads, the same object from step to step. */
  readonly #moment: { -readonly [K in keyof WorldStep]: WorldStep[K] };

  constructor(layers: Layers, document: CompiledDocument, options: RouteOptions) {
    [this.#layers, this.#document, this.#options] = [layers, document, options];
    const { scene, clock, dials, effect } = document;
    const { rate } = options;
    const births = {
      step: 0,
      from: 0,
      to: 0,
      rate,
      clock,
      scene,
      isFirst: false,
      seed: effect.seed,
      room: 0,
    };
    this.#moment = { step: 0, from: 0, to: 0, rate, clock, scene, dials, births, inboxes: layers.inboxes };
  }

  /** Goes on with another document. */
  take(document: CompiledDocument): void {
    this.#document = document;
    this.#aheads = [];
  }

  /** The step up to which all is computed. */
  get step(): number {
    let least = Infinity;
    for (const { at } of this.#layers.stepping) least = Math.min(least, at);
    return least === Infinity ? this.#idleStep : least;
  }

  /** The step before which nothing is computed: below 0 with pre-roll. */
  get firstStep(): number {
    return -this.#document.clock.unseenSteps;
  }

  /**
   * Computes up to `toStep`, from where each layer is or from the nearest state before it that is known. Returns early when
   * `isCancelled` says so.
   */
  advance(toStep: number, isCancelled?: () => boolean): void {
    const { kins } = this.#layers;
    for (const kin of kins.all) if (kins.goBack(kin, toStep, this.firstStep)) this.#wentBack.add(kin[0]!.compiled);
    this.#idleStep = toStep;
    for (const kin of kins.all) if (!this.#skipAhead(kin, toStep, isCancelled)) return;
    for (let step = this.step; step < toStep && !isCancelled?.(); step = this.step) this.#advanceOne(step);
  }

  /**
   * Lets a group that stands before its first step begin no further back than what will live at `toStep` hangs on. Returns
   * false while that is still being counted.
   */
  #skipAhead(kin: Kin, toStep: number, isCancelled?: () => boolean): boolean {
    const [first] = kin as readonly [Running];
    const { firstStep } = this;
    if (first.at !== firstStep || !first.isExact || this.#fromZero.has(first.compiled)) return true;
    let ahead = this.#aheads.find((each) => each.isFor(kin));
    // One that was begun for a later step starts too late.
    if (!ahead || ahead.toStep > toStep) {
      this.#aheads = this.#aheads.filter((each) => each !== ahead);
      const { skipsAhead, rate } = this.#options;
      const isPlain = skipsAhead && this.#layers.isLoose && kin.every((running) => !('bound' in running));
      const lookBack = isPlain ? lookBackOf(kin, rate) : Infinity;
      const aim = toStep - (this.#wentBack.has(first.compiled) ? GOING_BACK : 0);
      if (aim - lookBack < firstStep + WORTH_SKIPPING) return true;
      const { clock, scene, dials, effect } = this.#document;
      ahead = new Ahead(kin, firstStep, lookBack, aim, { clock, scene, dials, seed: effect.seed });
      this.#aheads.push(ahead);
    }
    if (!ahead.advance(isCancelled)) return false;
    this.#aheads = this.#aheads.filter((each) => each !== ahead);
    if (ahead.hadRoom) ahead.place();
    else this.#fromZero.add(first.compiled);
    return true;
  }

  /** Computes a step for whoever stands at its start. */
  #advanceOne(step: number): void {
    const { clock, scene, dials, effect } = this.#document;
    const { budget, now } = this.#options;
    const moment = this.#moment;
    const births = moment.births as { -readonly [K in keyof WorldStep['births']]: WorldStep['births'][K] };
    moment.step = births.step = step;
    moment.from = births.from = clock.timeOf(step);
    moment.to = births.to = clock.timeOf(step + 1);
    moment.clock = births.clock = clock;
    moment.scene = births.scene = scene;
    moment.dials = dials;
    births.isFirst = step === this.firstStep;
    births.seed = effect.seed;
    births.room = budget - this.#layers.living;
    scene.pose(moment.from, moment.to);
    for (const running of this.#layers.stepping) {
      if (running.at !== step) continue;
      const started = now?.() ?? 0;
      const { source } = running.compiled.layer;
      const parent = source.kind === 'particles' ? this.#layers.of(source.layer)?.population : undefined;
      this.#layers.stepper.step(running, this.#layers.trailsOf(running), parent, moment);
      this.stepsTaken++;
      running.microseconds = (now?.() ?? 0) - started;
    }
    this.#layers.kins.keep(step + 1);
  }
}
