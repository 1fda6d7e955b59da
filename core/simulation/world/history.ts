import type { Running } from '../run/running.ts';
import { bytesOf, type SavedLayer } from './saved.ts';

/** Layers that hang together: links lead from one to the other, or one is born on the other's particles. */
export type Kin = readonly Running[];

/** Steps between two states that are kept at first. */
const EVERY = 15;
/** Bytes of states that a world keeps at most, unless told. */
export const HISTORY_BYTES = 192 * 1048576;

/** What all histories of a world may keep together, and keep. */
export interface HistoryBudget {
  readonly most: number;
  bytes: number;
}

/** States of layers at steps gone by, so that going back computes but a few steps again. */
export class History {
  readonly #byLayer = new Map<string, Map<number, SavedLayer>>();
  readonly #budget: HistoryBudget;
  #every = EVERY;
  #bytes = 0;

  constructor(budget: HistoryBudget = { most: HISTORY_BYTES, bytes: 0 }) {
    this.#budget = budget;
  }

  get bytes(): number {
    return this.#bytes;
  }

  /** Whether a state at a step is to be kept. */
  keeps(step: number): boolean {
    return step >= 0 && step % this.#every === 0;
  }

  has(layer: string, step: number): boolean {
    return this.#byLayer.get(layer)?.has(step) ?? false;
  }

  stateOf(layer: string, step: number): SavedLayer | undefined {
    return this.#byLayer.get(layer)?.get(step);
  }

  put(layer: string, step: number, saved: SavedLayer): void {
    const own = this.#byLayer.get(layer) ?? new Map<number, SavedLayer>();
    this.#byLayer.set(layer, own);
    this.#drop(own, step);
    own.set(step, saved);
    this.#count(bytesOf(saved));
    while (this.#budget.bytes > this.#budget.most && this.#bytes > 0 && this.#every < 1 << 20) this.#thin();
  }

  /** The last step up to `step` at which all of some layers have a state; null without any. */
  lastFor(kin: Kin, step: number): number | null {
    for (let at = Math.floor(step / this.#every) * this.#every; at >= 0; at -= this.#every)
      if (this.#hasAll(kin, at)) return at;
    return null;
  }

  #hasAll(kin: Kin, step: number): boolean {
    for (const { compiled } of kin) if (!this.has(compiled.id, step)) return false;
    return true;
  }

  forget(layer: string): void {
    this.forgetAfter(layer, -1);
  }

  /** Forgets a layer's states after a step. */
  forgetAfter(layer: string, step: number): void {
    const own = this.#byLayer.get(layer);
    if (own) for (const at of [...own.keys()]) if (at > step) this.#drop(own, at);
  }

  /** Takes another history's states of a layer. */
  takeFrom(other: History, layer: string): void {
    this.forget(layer);
    for (const [step, saved] of other.#byLayer.get(layer) ?? []) if (this.keeps(step)) this.put(layer, step, saved);
  }

  #drop(own: Map<number, SavedLayer>, step: number): void {
    const saved = own.get(step);
    if (!saved) return;
    this.#count(-bytesOf(saved));
    own.delete(step);
  }

  #count(bytes: number): void {
    this.#bytes += bytes;
    this.#budget.bytes += bytes;
  }

  /** Forgets all. */
  clear(): void {
    for (const layer of [...this.#byLayer.keys()]) this.forget(layer);
  }

  /** Too much is kept: only every second state stays. */
  #thin(): void {
    this.#every *= 2;
    for (const own of this.#byLayer.values())
      for (const step of [...own.keys()]) if (step % this.#every !== 0) this.#drop(own, step);
  }
}
