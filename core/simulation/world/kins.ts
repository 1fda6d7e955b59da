import type { Kernels } from '../../kernels/index.ts';
import type { Scratch } from '../run/memory.ts';
import { History, type HistoryBudget, type Kin } from './history.ts';
import type { Running } from '../run/running.ts';
import { restoreLayer, saveLayer } from './saved.ts';

/** The layers of a world, kin by kin: each kin stands at a step of its own, and is brought back to known states of its own. */
export class Kins {
  readonly history: History;
  readonly #kernels: Kernels;
  readonly #buffer: ArrayBufferLike;
  readonly #scratch: Scratch;
  all: readonly Kin[] = [];

  constructor(kernels: Kernels, buffer: ArrayBufferLike, scratch: Scratch, budget: HistoryBudget) {
    this.#kernels = kernels;
    this.#buffer = buffer;
    this.#scratch = scratch;
    this.history = new History(budget);
  }

  /** Puts layers back to before the first step. */
  begin(kin: Kin, firstStep: number): void {
    for (const running of kin) {
      running.population.empty();
      running.inbox.empty();
      running.hits.count = 0;
      running.travel.metres = 0;
      running.turnStart = 0;
      running.at = firstStep;
      running.exactFrom = -Infinity;
      running.isExact = true;
    }
  }

  /**
   * Brings layers to the last state that is known at or before a step, unless they are between it and the step. Returns
   * whether they have to begin anew although they stand at a later step, or are on their way to one.
   */
  goBack(kin: Kin, toStep: number, firstStep: number): boolean {
    const { at, isExact } = kin[0]!;
    let isUsable = at <= toStep;
    for (const { exactFrom } of kin) isUsable &&= toStep >= exactFrom;
    const known = isExact || at > toStep ? this.history.lastFor(kin, toStep) : null;
    if (isUsable && (known === null || known <= at)) return false;
    if (known === null) {
      this.begin(kin, firstStep);
      return true;
    }
    for (const running of kin) {
      restoreLayer(running, this.history.stateOf(running.compiled.id, known)!, this.#buffer);
      running.at = known;
      running.exactFrom = -Infinity;
      running.isExact = true;
    }
    return false;
  }

  /** Keeps the states of layers that were just brought to a step. */
  keep(step: number): void {
    if (!this.history.keeps(step)) return;
    for (const kin of this.all)
      for (const running of kin) {
        const { id } = running.compiled;
        if (running.at !== step || step < running.exactFrom || !running.isExact || this.history.has(id, step))
          continue;
        running.population.compact(this.#kernels, this.#scratch.indicesAt, true);
        this.history.put(id, step, saveLayer(running, this.#buffer));
      }
  }

  /** Takes another world's present and past states of a layer; not where its places are others. */
  take(running: Running, theirs: Running, other: Kins): void {
    const [mine, given] = [running.population, theirs.population];
    if (mine.cap !== given.cap || mine.fields !== given.fields) return;
    theirs.population.compact(other.#kernels, other.#scratch.indicesAt, true);
    restoreLayer(running, saveLayer(theirs, other.#buffer), this.#buffer);
    running.at = theirs.at;
    running.exactFrom = theirs.exactFrom;
    running.isExact = theirs.isExact;
    this.history.takeFrom(other.history, running.compiled.id);
  }
}
