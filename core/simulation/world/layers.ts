import type { Effect } from '../../document/index.ts';
import type { CompiledDocument, CompiledLayer } from '../compile/plan.ts';
import { Framer } from '../frames/framing.ts';
import { Collider } from '../run/5-collide.ts';
import type { Trail } from '../run/6-lay.ts';
import { Hits } from '../run/hits.ts';
import { Inbox } from '../run/inbox.ts';
import { Mover } from '../run/4-move.ts';
import { Population } from '../run/population.ts';
import type { Running } from '../run/running.ts';
import { Stepper } from '../run/step.ts';
import { Tables } from '../values/tables.ts';
import { mostStanding } from './ahead.ts';
import type { HistoryBudget } from './history.ts';
import { Kins } from './kins.ts';
import { blockLayout, type Needs } from './needs.ts';
import { kinsOf } from './reach.ts';
import type { Shared } from './shared.ts';

/** What an instance runs: its populations in its block of the world's memory, and what steps and draws them. */
export class Layers {
  /** Layers with particles of their own, by salt: no order on screen reaches what is computed. */
  readonly running: readonly Running[];
  /** Points laid behind particles, a population for each layer that is drawn as trails. */
  readonly trails: readonly Trail[];
  /** The same layers in the order in which they are stepped, those left out that are never computed. */
  stepping: readonly Running[] = [];
  readonly kins: Kins;
  readonly stepper: Stepper;
  readonly framer: Framer;
  readonly inboxes: ReadonlyMap<string, Inbox>;
  readonly #tables: Tables;
  readonly #trailsOf: ReadonlyMap<Running, readonly Trail[]>;
  readonly #budget: number;
  readonly #only: ReadonlySet<string> | undefined;

  constructor(
    shared: Shared,
    block: number,
    needs: Needs,
    document: CompiledDocument,
    history: HistoryBudget,
    { budget, only }: { readonly budget: number; readonly only?: ReadonlySet<string> },
  ) {
    const { kernels, scratch } = shared;
    const { buffer } = shared.memory;
    this.#budget = budget;
    this.#only = only;
    const { populationsAt, tablesAt, dressesAt } = blockLayout(needs);
    const populations = [...needs.layers, ...needs.trails].map(
      ({ cap, channels }, n) => new Population(buffer, block + populationsAt[n]!, cap, channels),
    );
    this.#tables = new Tables(buffer, block + tablesAt, needs.tables);
    const mover = new Mover(kernels, buffer, scratch, this.#tables, shared.helpers, shared.worthSharing);
    this.stepper = new Stepper(kernels, scratch, mover, new Collider());
    this.framer = new Framer(kernels, buffer, block + dressesAt, needs.dresses, scratch);
    this.kins = new Kins(kernels, buffer, scratch, history);
    const { compiled, trails } = document;
    this.running = compiled.map((layer, n) => runningOf(layer, populations[n]!));
    this.trails = trails.map((bound, n) => ({
      ...runningOf(bound.points, populations[compiled.length + n]!),
      bound,
      heads: this.of(bound.heads)!,
    }));
    this.#trailsOf = new Map(
      this.running.map((running) => [running, this.trails.filter(({ heads }) => heads === running)]),
    );
    this.inboxes = new Map(this.running.map(({ compiled: { id }, inbox }) => [id, inbox]));
    this.#follow(document);
  }

  of(layerId: string): Running | undefined {
    for (const running of this.running) if (running.compiled.id === layerId) return running;
    return undefined;
  }

  trailOf(layerId: string): Trail | undefined {
    return this.trails.find(({ bound }) => bound.id === layerId);
  }

  trailsOf(running: Running): readonly Trail[] {
    return this.#trailsOf.get(running) ?? NO_TRAILS;
  }

  get all(): readonly Running[] {
    return [...this.running, ...this.trails];
  }

  get living(): number {
    let living = 0;
    for (const { population } of this.running) living += population.living;
    return living;
  }

  /** Goes on with another document, whose populations are the same. */
  take(document: CompiledDocument): void {
    document.compiled.forEach((layer, n) => (this.running[n]!.compiled = layer));
    document.trails.forEach((bound, n) => {
      const trail = this.trails[n]!;
      trail.bound = bound;
      trail.compiled = bound.points;
    });
    this.#follow(document);
    this.#tables.forget();
    this.stepper.forget();
    this.framer.forget();
  }

  #follow({ effect, lineage, surfaces }: CompiledDocument): void {
    this.#group(effect);
    const active = new Set(this.kins.all.flat());
    this.stepping = lineage.order.map((id) => this.of(id)!).filter((running) => active.has(running));
    this.stepper.collider.take(surfaces);
  }

  #group(effect: Effect): void {
    // Where all together might reach the budget, each layer's births hang on how many others live.
    const ids = this.isLoose ? kinsOf(effect) : [effect.layers.order];
    const kins = ids.map((kin) =>
      kin.flatMap((id) => [
        ...this.running.filter(({ compiled }) => compiled.id === id),
        ...this.trails.filter(({ bound }) => bound.id === id),
      ]),
    );
    const only = this.#only;
    this.kins.all = kins.filter(
      (kin) => kin.length > 0 && (!only || kin.some(({ compiled }) => only.has(compiled.id))),
    );
  }

  /** Whether no layer's births hang on how many of the others live. */
  get isLoose(): boolean {
    const setOff = new Set(this.running.flatMap(({ compiled }) => compiled.links.map(({ to }) => to)));
    const most = (running: Running) =>
      Math.min(running.population.cap, mostStanding(running, setOff.has(running.compiled.id)));
    return this.running.reduce((sum, running) => sum + most(running), 0) <= this.#budget;
  }
}

const NO_TRAILS: readonly Trail[] = [];

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
