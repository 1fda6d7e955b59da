import { Piscina } from 'piscina';
import type { Logger } from 'pino';
import { Slots } from '../access/slots.ts';
import { Refusal } from '../errors.ts';
import type * as tasks from './tasks.ts';
import type { Outcome } from './outcome.ts';

type Tasks = typeof tasks;
type Input<K extends keyof Tasks> = Parameters<Tasks[K]>[0];
type Result<K extends keyof Tasks> = Awaited<ReturnType<Tasks[K]>> extends Outcome<infer T> ? T : never;

const LEAST_SECONDS = 20;
/** Threads for files, and one more for what is quick, so that a thumbnail does not wait for a parcel. */
const [FILE_THREADS, QUICK_THREADS] = [2, 1];
const QUICK: ReadonlySet<string> = new Set(['checkPicture', 'searchEffects']);
/** Tasks of either kind, under way or waiting; one more is refused. */
const MOST_TASKS = 18;
/** Longer than any queue of tasks can be. */
const MOST_WAIT_MILLISECONDS = 600_000;
const HEAP_MEGABYTES = 1024;
/** A large file may take longer. */
const SECONDS_PER_MEGABYTE = 0.5;
export const secondsFor = (bytes: number): number => (bytes / 1048576) * SECONDS_PER_MEGABYTE;
/** A thread without work ends after this, and gives its memory back. */
const IDLE_MILLISECONDS = 60_000;

/** Tasks that are done so many at a time; a limited number waits. */
class Lane {
  readonly #slots: Slots;
  #tasks = 0;

  constructor(threads: number) {
    this.#slots = new Slots(threads, threads, MOST_WAIT_MILLISECONDS);
  }

  async run<T>(task: () => Promise<T>): Promise<T> {
    if (this.#tasks >= MOST_TASKS)
      throw new Refusal(503, 'busy', 'Too many files are being worked on just now: try again in a moment.', {
        seconds: 5,
      });
    this.#tasks++;
    try {
      const giveBack = await this.#slots.take('');
      return await task().finally(giveBack);
    } finally {
      this.#tasks--;
    }
  }
}

/** Set where this is a part of the bundle (scripts/bundles/server.mjs). */
declare const IS_BUNDLE: boolean | undefined;
const THREAD = typeof IS_BUNDLE === 'undefined' ? './thread.mjs' : '../dist/tasks.mjs';

/**
 * Threads for what comes from outside or takes long: reading files, making parcels, searching. Each can be ended:
 * whatever it is at, nothing else waits for it or falls with it.
 */
export class Workers {
  readonly #log: Logger;
  readonly #leastSeconds: number;
  readonly #pool = new Piscina({
    filename: new URL(THREAD, import.meta.url).href,
    execArgv: [],
    minThreads: 1,
    maxThreads: FILE_THREADS + QUICK_THREADS,
    idleTimeout: IDLE_MILLISECONDS,
    resourceLimits: { maxOldGenerationSizeMb: HEAP_MEGABYTES },
  });

  readonly #lanes = { files: new Lane(FILE_THREADS), quick: new Lane(QUICK_THREADS) };

  constructor(log: Logger, leastSeconds = LEAST_SECONDS) {
    this.#log = log;
    this.#leastSeconds = leastSeconds;
  }

  /**
   * Runs a task in a thread.
   * @param moreSeconds it may take beside twenty, for a large file.
   * @throws Refusal when it cannot be done, takes too long, or too many wait.
   */
  async run<K extends keyof Tasks & string>(name: K, input: Input<K>, moreSeconds = 0): Promise<Result<K>> {
    const lane = QUICK.has(name) ? this.#lanes.quick : this.#lanes.files;
    return lane.run(() => this.#runNow(name, input, this.#leastSeconds + moreSeconds));
  }

  async #runNow<K extends keyof Tasks & string>(name: K, input: Input<K>, seconds: number): Promise<Result<K>> {
    const end = new AbortController();
    const timer = setTimeout(() => end.abort(), seconds * 1000);
    let outcome: Outcome<Result<K>>;
    try {
      outcome = (await this.#pool.run(input, { name, signal: end.signal })) as Outcome<Result<K>>;
    } catch (error) {
      throw this.#refusalOf(error as Error & { code?: string }, end.signal.aborted, seconds);
    } finally {
      clearTimeout(timer);
    }
    if ('result' in outcome) return outcome.result;
    if ('sentence' in outcome) throw new Refusal(422, outcome.code, outcome.sentence);
    this.#log.warn({ task: name, fault: outcome.fault }, 'a task failed');
    throw new Refusal(422, 'import.damaged', 'This file is damaged in a way that it cannot be read.');
  }

  #refusalOf(error: Error & { code?: string }, isSlow: boolean, seconds: number): Error {
    if (isSlow)
      return new Refusal(422, 'import.slow', `This took over ${Math.round(seconds)} seconds: it was given up.`);
    this.#log.warn({ name: error.name, code: error.code }, 'a task ended its thread');
    return new Refusal(422, 'import.much', 'This file unpacks to more than can be read: make it smaller.');
  }

  async close(): Promise<void> {
    await this.#pool.destroy();
  }
}
