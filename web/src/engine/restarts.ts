const MOST_RESTARTS = 3;
const WITHIN_MILLISECONDS = 60_000;

/** Says whether what failed is started again by itself: not after it failed thrice within a minute. */
export class Restarts {
  readonly #now: () => number;
  #times: number[] = [];

  constructor(now: () => number = () => performance.now()) {
    this.#now = now;
  }

  /** Notes a failure. Returns whether to start again. */
  mayRestart(): boolean {
    const now = this.#now();
    this.#times = this.#times.filter((at) => now - at < WITHIN_MILLISECONDS);
    this.#times.push(now);
    return this.#times.length <= MOST_RESTARTS;
  }

  /** Somebody asked for a new start. */
  forget(): void {
    this.#times = [];
  }
}
