/** Steps that a layer's time is judged by: the last so many. */
const STEPS = 41;

interface Times {
  readonly last: Float64Array;
  count: number;
  /** How many of the last steps took longer than the limit. */
  over: number;
}

/** Finds layers of which most steps take too long, and tells them from those of which a few do, as the first often are. */
export class StepTimes {
  readonly #limit: number;
  readonly #layers = new Map<string, Times>();

  /** @param limit milliseconds of a step that are too long. */
  constructor(limit: number) {
    this.#limit = limit;
  }

  /** Takes the milliseconds of a layer's step. */
  note(id: string, milliseconds: number): void {
    let times = this.#layers.get(id);
    if (!times) this.#layers.set(id, (times = { last: new Float64Array(STEPS), count: 0, over: 0 }));
    const { last } = times;
    const at = times.count++ % STEPS;
    // Before all places are taken, they hold 0, which is not too long.
    times.over += Number(milliseconds > this.#limit) - Number(last[at]! > this.#limit);
    last[at] = milliseconds;
  }

  /** Layers of which more than half of the last steps took longer than the limit, with the middle of their milliseconds, rounded. */
  slow(): Record<string, number> {
    const found = [...this.#layers].filter(([, { over }]) => over > STEPS / 2);
    return Object.fromEntries(found.map(([id, { last }]) => [id, Math.round(last.slice().sort()[STEPS >> 1]!)]));
  }
}
