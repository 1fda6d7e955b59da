import type { Instance } from '@jinx/core/simulation';
import { progressOf } from './progress.ts';
import type { Worlds } from './worlds.ts';

/** After the last edit of a drag, before the exact run is begun behind what plays. */
const QUIET_MILLISECONDS = 200;

/** The exact run behind what plays: layers that an edit reached are computed from zero, until they have caught up. */
export class Settling {
  readonly #worlds: Worlds;
  #behind: Instance | null = null;
  /** Where the run behind began, once it has counted up to there. */
  #from: number | null = null;
  #editedAt = 0;

  constructor(worlds: Worlds) {
    this.#worlds = worlds;
  }

  /** What was computed behind is of no use any more. */
  forget(): void {
    this.#behind = null;
  }
  /** An edit has reached the state of some layers. */
  edited(): void {
    this.#behind = null;
    this.#editedAt = performance.now();
  }

  #begin(world: Instance): Instance | null {
    this.#from = null;
    try {
      return this.#worlds.beside(world.inexact);
    } catch {
      // No room for a second world: what is seen is exact again when it is paused.
      this.#editedAt = Infinity;
      return null;
    }
  }

  /** Computes the run behind for some milliseconds. Returns whether it caught up and took its place. */
  follow(world: Instance, milliseconds: number): boolean {
    if (world.isExact) return false;
    const now = performance.now();
    if (!this.#behind && now - this.#editedAt > QUIET_MILLISECONDS) this.#behind = this.#begin(world);
    const behind = this.#behind;
    if (!behind) return false;
    if (behind.step < world.step) behind.advance(world.step, () => performance.now() > now + milliseconds);
    if (behind.step !== world.step) return false;
    world.takeLayers(behind, world.inexact);
    this.#behind = null;
    return true;
  }

  /** Share of the way that the run behind has come; 1 when there is nothing to settle. */
  share(world: Instance): number {
    if (world.isExact) return 1;
    if (!this.#behind) return 0;
    const { step } = this.#behind;
    if (this.#from === null && step > 0) this.#from = step;
    return this.#from === null ? 0 : progressOf(step, this.#from, world.step);
  }

  /** Lets what is not exact be computed to the end, from where the run behind has come. Returns the step to go to. */
  settleAtOnce(world: Instance): number {
    const { step } = world;
    const behind = this.#behind;
    this.#behind = null;
    world.startAnew();
    if (behind && behind.step <= step) world.takeLayers(behind, behind.computed);
    return step;
  }
}
