import { bytesOf, type SavedLayer } from './saved.ts';

/** Steps between two states that are kept at first. */
const EVERY = 15;
const MOST_BYTES = 192 * 1048576;

/** States of layers at steps gone by, so that going back computes but a few steps again. */
export class History {
  readonly #byLayer = new Map<string, Map<number, SavedLayer>>();
  readonly #mostBytes: number;
  #every = EVERY;
  #bytes = 0;

  constructor(mostBytes = MOST_BYTES) {
    this.#mostBytes = mostBytes;
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
    this.#bytes += bytesOf(saved);
    while (this.#bytes > this.#mostBytes && this.#every < 1 << 20) this.#thin();
  }

  /** The last step up to `step` at which all of some layers have a state; null without any. */
  lastFor(layers: readonly string[], step: number): number | null {
    for (let at = Math.floor(step / this.#every) * this.#every; at >= 0; at -= this.#every)
      if (layers.every((layer) => this.has(layer, at))) return at;
    return null;
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
    this.#bytes -= bytesOf(saved);
    own.delete(step);
  }

  /** Too much is kept: only every second state stays. */
  #thin(): void {
    this.#every *= 2;
    for (const own of this.#byLayer.values())
      for (const step of [...own.keys()]) if (step % this.#every !== 0) this.#drop(own, step);
  }
}
