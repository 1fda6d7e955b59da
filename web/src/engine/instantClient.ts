import type { Effect } from '@jinx/core/document';
import type { Rig } from '@jinx/core/geometry';
import type { FromInstants, ToInstants } from '@jinx/player/simulation';
import { NoAnswer } from './calls';
import { reasonOf, type Thread, type Threads } from './threads';

/** A frame of an instant, to be drawn. */
export type Instant = Pick<Extract<FromInstants, { kind: 'instant' }>, 'buffer'>;

interface Waiting {
  readonly resolve: (instant: Instant | null) => void;
  readonly reject: (error: NoAnswer) => void;
}

/** Instants of one effect, as they are computed. */
export class InstantStream {
  readonly #come: Instant[] = [];
  readonly #stop: () => void;
  #waiting: Waiting | null = null;
  #error: NoAnswer | null = null;
  #isStopped = false;

  constructor(stop: () => void) {
    this.#stop = stop;
  }

  /** The next instant; null once nobody wants any more. Rejects with NoAnswer when it cannot be computed. */
  next(): Promise<Instant | null> {
    if (this.#isStopped) return Promise.resolve(null);
    const instant = this.#come.shift();
    if (instant) return Promise.resolve(instant);
    if (this.#error) return Promise.reject(this.#error);
    return new Promise((resolve, reject) => (this.#waiting = { resolve, reject }));
  }

  take(instant: Instant): void {
    if (this.#waiting) this.#waiting.resolve(instant);
    else this.#come.push(instant);
    this.#waiting = null;
  }
  fail(error: NoAnswer): void {
    this.#error = error;
    this.#waiting?.reject(error);
    this.#waiting = null;
  }
  /** Nobody wants any more of them. */
  stop(): void {
    if (this.#isStopped) return;
    this.#isStopped = true;
    this.#waiting?.resolve(null);
    this.#waiting = null;
    this.#stop();
  }
}

/** The worker that computes instants of effects: begun at once, and again when it is needed after it has ended. */
export class InstantClient {
  readonly #threads: Threads;
  readonly #streams = new Map<number, InstantStream>();
  #worker: Promise<Thread> | null;
  #known = new Set<string>();
  #next = 1;

  constructor(threads: Threads) {
    this.#threads = threads;
    this.#worker = this.#begin();
    this.#worker.catch(() => undefined);
  }

  /** Computes instants of an effect, in seconds of its time sheet, rising; after those asked for before. */
  run(effect: Effect, rigs: readonly (readonly [string, Rig])[], budget: number, seconds: number[]): InstantStream {
    const id = this.#next++;
    const stream = new InstantStream(() => {
      this.#streams.delete(id);
      this.#tellIfBegun((worker) => worker.postMessage({ kind: 'stop', id } satisfies ToInstants));
    });
    this.#streams.set(id, stream);
    void (this.#worker ??= this.#begin()).then(
      (worker) => {
        const tell = (order: ToInstants) => worker.postMessage(order);
        const news = rigs.filter(([hash]) => !this.#known.has(hash));
        if (news.length > 0) tell({ kind: 'rigs', rigs: news });
        for (const [hash] of news) this.#known.add(hash);
        tell({ kind: 'run', id, effect, rigs: rigs.map(([hash]) => hash), budget, seconds });
      },
      (error: Error) => this.#fail(error.message),
    );
    return stream;
  }

  async #begin(): Promise<Thread> {
    const worker = this.#threads.instants();
    this.#known = new Set();
    worker.onmessage = ({ data }: MessageEvent<FromInstants>) => {
      const stream = this.#streams.get(data.id);
      if (data.kind === 'refused') stream?.fail(new NoAnswer(data.sentence));
      else stream?.take(data);
    };
    worker.onerror = (event) => {
      worker.terminate();
      this.#fail(reasonOf(event));
    };
    worker.postMessage({ kind: 'start', kernels: await this.#threads.kernels() } satisfies ToInstants);
    return worker;
  }

  #fail(reason: string): void {
    this.#worker = null;
    const error = new NoAnswer(`The instants could not be computed: ${reason}`);
    for (const stream of this.#streams.values()) stream.fail(error);
    this.#streams.clear();
  }

  stop(): void {
    for (const stream of [...this.#streams.values()]) stream.stop();
    this.#tellIfBegun((worker) => worker.terminate());
    this.#worker = null;
  }

  /** One that could not begin needs to be told nothing: whoever waits for its instants has heard why. */
  #tellIfBegun(tell: (worker: Thread) => void): void {
    this.#worker?.then(tell, () => undefined);
  }
}
