import { apply, listed, ownerOf, type Change, type Effect } from '@jinx/core/document';
import type { Rig } from '@jinx/core/geometry';
import type { KernelBytes } from '@jinx/core/kernels';
import { stopCrew, playAlone, type Instance, type Inputs, type PlayOptions } from '@jinx/core/simulation';
import type { Outside } from './protocol.ts';

/** The document, what it needs, and the world that it is computed in; and other worlds of the same, beside it. */
export class Worlds {
  #kernels: KernelBytes | null = null;
  #helper: MessagePort | null = null;
  #rigs: ReadonlyMap<string, Rig> = new Map();
  #budget = 100_000;
  effect: Effect | null = null;
  /** The world that is seen. */
  world: Instance | null = null;
  letGoStep: number | undefined;

  /** Takes the code of the kernels, and the way to the other thread that computes, if there is one. */
  start(kernels: KernelBytes, helper: MessagePort | null): void {
    [this.#kernels, this.#helper] = [kernels, helper];
  }

  load(effect: Effect, rigs: readonly (readonly [string, Rig])[], budget: number): void {
    [this.effect, this.#rigs, this.#budget] = [effect, new Map(rigs), budget];
  }

  /** Changes the document. What is not changed stays the very same, so that how far it reaches is soon found out. */
  change(changes: readonly Change[]): { readonly before: Effect; readonly after: Effect } | null {
    const before = this.effect;
    if (!before) return null;
    this.effect = apply(before, changes);
    return { before, after: this.effect };
  }

  get rigs(): ReadonlyMap<string, Rig> {
    return this.#rigs;
  }
  /** How a world beside that which is seen is computed. */
  get options(): PlayOptions {
    return { kernels: this.#kernels!, budget: this.#budget };
  }
  get inputs(): Inputs {
    const { strikes = [], signals = [] } = this.world ?? {};
    return { strikes, signals, ...(this.letGoStep === undefined ? {} : { letGoStep: this.letGoStep }) };
  }
  setOutside({ strikes, signals }: Outside): void {
    this.world?.setStrikes(strikes);
    this.world?.setSignals(signals);
  }

  /** Makes the world anew, of the document as it is. @throws an error with a sentence where there is no room for it. */
  rebuild(): Instance {
    const before = this.world;
    if (before && this.#helper) stopCrew(before.memory.buffer);
    const made = playAlone(this.effect!, this.#rigs, this.inputs, {
      ...this.options,
      shared: true,
      frames: true,
      helpers: this.#helper ? 1 : 0,
      now: () => performance.now() * 1000,
    });
    if (before) made.inherit(before);
    this.#helper?.postMessage(made.memory);
    this.world = made;
    return made;
  }

  /** A world for some layers alone, from its beginning. @throws where there is no room for it. */
  beside(only: ReadonlySet<string>): Instance {
    return playAlone(this.effect!, this.#rigs, this.inputs, { ...this.options, only });
  }

  /** A layer and all that show its particles, by salt. */
  saltsOf(layerId: string): Set<number> {
    const effect = this.effect!;
    return new Set(
      listed(effect.layers)
        .filter(({ id }) => ownerOf(effect, id) === layerId)
        .map(({ item }) => item.salt),
    );
  }
}
