import { PullRun, type Pull } from '@jinx/core/simulation';
import { InstantRun } from './instantRun.ts';
import type { Tell } from './publisher.ts';
import type { Worlds } from './worlds.ts';

/** What is computed beside the playing, a slice at a time: frames of other instants, and what forces do to a particle. */
export class Jobs {
  readonly #worlds: Worlds;
  readonly #tell: Tell;
  #instants: { readonly id: number; readonly run: InstantRun } | null = null;
  #pulls: { readonly id: number; readonly step: number; readonly run: PullRun } | null = null;

  constructor(worlds: Worlds, tell: Tell) {
    [this.#worlds, this.#tell] = [worlds, tell];
  }

  get isBusy(): boolean {
    return this.#instants !== null || this.#pulls !== null;
  }

  /** Frames of instants of the time sheet, in seconds, in place of those asked for before. */
  beginInstants(id: number, seconds: readonly number[]): void {
    const { effect, world, rigs, inputs, options } = this.#worlds;
    this.#instants = null;
    if (seconds.length === 0 || !effect || !world) return;
    try {
      this.#instants = { id, run: new InstantRun(effect, rigs, inputs, seconds, options) };
    } catch {
      this.#tell({
        kind: 'failed',
        sentence: 'There is no room to compute other instants beside what plays. Close other effects.',
      });
    }
  }

  /** What each force does to the particle of a key at the present step; what was asked before is given up. */
  beginPulls(id: number, layerId: string, key: number): void {
    this.#endPulls(null);
    const { effect, world, rigs, inputs, options } = this.#worlds;
    const { step = 0 } = world ?? {};
    if (!effect?.layers.byId[layerId] || !world) return this.#tell({ kind: 'pulls', id, step, pulls: null });
    try {
      const run = new PullRun(effect, rigs, inputs, { layerId, key, step }, options, world);
      this.#pulls = { id, step, run };
    } catch {
      this.#tell({ kind: 'pulls', id, step, pulls: null });
    }
  }

  #endPulls(pulls: readonly Pull[] | null): void {
    if (!this.#pulls) return;
    this.#tell({ kind: 'pulls', id: this.#pulls.id, step: this.#pulls.step, pulls });
    this.#pulls = null;
  }

  /** Goes on with each for some milliseconds, as many as `spare` says by then. */
  follow(spare: () => number): void {
    if (this.#instants) this.#followInstants(performance.now() + spare());
    if (!this.#pulls) return;
    const until = performance.now() + spare();
    const found = this.#pulls.run.advance(() => performance.now() > until);
    if (found) this.#endPulls(found);
  }

  #followInstants(until: number): void {
    const { id, run } = this.#instants!;
    const found = run.advance(() => performance.now() > until);
    if (run.isDone) this.#instants = null;
    if (!found) return;
    const { frame, share } = found;
    const buffer = frame.f32.buffer as ArrayBuffer;
    this.#tell({ kind: 'instant', id, buffer, share }, [buffer]);
  }
}
