import { Worker } from 'node:worker_threads';
import type { Logger } from 'pino';
import type { Parcel, ParcelAsset } from '@jinx/core/formats';
import { Refusal } from '../errors.ts';
import type { Outcome, Taken, Task } from './worker.ts';

/** A file has this long to be read, and longer the larger it is. */
const LEAST_SECONDS = 10;
const SECONDS_PER_MEGABYTE = 0.5;
const MOST_WORKERS = 2;
/** More than this many that wait are sent away. */
const MOST_WAITING = 16;
const HEAP_MEGABYTES = 1024;

interface Waiting {
  readonly task: Task;
  readonly done: (taken: Taken) => void;
  readonly fail: (error: Error) => void;
}

/** A thread, and who hears what comes of what it is at. */
interface Thread {
  readonly worker: Worker;
  heard: (outcome: Outcome | Error) => void;
}

/**
 * Reads files that come from anywhere, each in a thread that can be ended: whatever is in them, nothing else waits for it
 * or falls with it.
 */
export class Importer {
  readonly #log: Logger;
  readonly #idle: Thread[] = [];
  readonly #waiting: Waiting[] = [];
  #count = 0;

  readonly #leastSeconds: number;

  constructor(log: Logger, leastSeconds = LEAST_SECONDS) {
    this.#log = log;
    this.#leastSeconds = leastSeconds;
  }

  /** @throws Refusal when it cannot be read. */
  file(bytes: Uint8Array, name: string): Promise<ParcelAsset> {
    return this.#take({ kind: 'file', bytes, name }) as Promise<ParcelAsset>;
  }
  /** @throws Refusal when it cannot be read. */
  parcel(bytes: Uint8Array): Promise<Parcel> {
    return this.#take({ kind: 'parcel', bytes }) as Promise<Parcel>;
  }

  #take(task: Task): Promise<Taken> {
    if (this.#waiting.length >= MOST_WAITING)
      throw new Refusal(503, 'busy', 'Too many files are being taken in just now: try again in a moment.');
    return new Promise((done, fail) => {
      this.#waiting.push({ task, done, fail });
      this.#next();
    });
  }

  #next(): void {
    const waiting = this.#waiting[0];
    if (!waiting) return;
    const thread = this.#idle.pop() ?? (this.#count < MOST_WORKERS ? this.#make() : null);
    if (!thread) return;
    this.#waiting.shift();
    this.#run(thread, waiting);
  }

  #make(): Thread {
    this.#count++;
    const worker = new Worker(new URL('./thread.mjs', import.meta.url), {
      execArgv: [],
      resourceLimits: { maxOldGenerationSizeMb: HEAP_MEGABYTES },
    });
    worker.unref();
    const thread: Thread = { worker, heard: () => undefined };
    worker.on('message', (outcome: Outcome) => thread.heard(outcome));
    worker.on('error', (error) => thread.heard(error));
    return thread;
  }

  #run(thread: Thread, { task, done, fail }: Waiting): void {
    const seconds = this.#leastSeconds + (task.bytes.length / 1048576) * SECONDS_PER_MEGABYTE;
    const end = (isFit: boolean) => {
      clearTimeout(timer);
      thread.heard = () => undefined;
      if (isFit) this.#idle.push(thread);
      else {
        this.#count--;
        void thread.worker.terminate();
      }
      this.#next();
    };
    const cut = (code: string, sentence: string) => {
      end(false);
      fail(new Refusal(422, code, sentence));
    };
    const timer = setTimeout(
      () => cut('import.slow', `This file took over ${Math.round(seconds)} seconds to read: it was given up.`),
      seconds * 1000,
    );
    thread.heard = (outcome) => {
      if (outcome instanceof Error) {
        this.#log.warn(outcome, 'a file ended its reader');
        return cut('import.much', 'This file unpacks to more than can be read: make it smaller.');
      }
      end(true);
      if ('taken' in outcome) return done(outcome.taken);
      if ('sentence' in outcome) return fail(new Refusal(422, outcome.code, outcome.sentence));
      this.#log.warn({ fault: outcome.fault }, 'a file could not be read');
      fail(new Refusal(422, 'import.damaged', 'This file is damaged in a way that it cannot be read.'));
    };
    thread.worker.postMessage(task, [task.bytes.buffer as ArrayBuffer]);
  }

  async close(): Promise<void> {
    await Promise.all(this.#idle.map(({ worker }) => worker.terminate()));
  }
}
