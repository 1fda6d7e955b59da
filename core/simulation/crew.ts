import { runProgram, type Kernels } from '../kernels/index.ts';
import { CONTROL, PROGRAM } from './memory.ts';

/**
 * Threads that step ranges of a population together. Control words, from CONTROL on:
 *
 * | 0 | number of the job: changed and notified to start one          |
 * | 1 | helpers that have finished the job                            |
 * | 2 | base address of the layer   | 3 | stride | 4 | particles      |
 * | 5 | threads                                                       |
 * | 6 | 1 when the crew is to stop                                    |
 * | 8 + k | particle-steps taken by thread k (0 is the conductor)     |
 *
 * Ranges are whole groups of four, so that no two threads write the same lanes; nothing is summed across threads.
 */
const JOB = 0;
const DONE = 1;
const BASE = 2;
const STRIDE = 3;
const COUNT = 4;
const THREADS = 5;
const STOP = 6;
const TAKEN = 8;

const MOST_HELPERS = 7;

/** Below this many particles, waking a helper costs more than it saves. */
const WORTH_SHARING = 2048;

const words = (buffer: ArrayBufferLike): Int32Array => new Int32Array(buffer, CONTROL, 32);

function range(count: number, thread: number, threads: number): [number, number] {
  const groups = Math.ceil(count / 4);
  return [4 * Math.floor((groups * thread) / threads), 4 * Math.floor((groups * (thread + 1)) / threads)];
}

/** Runs the program over all particles of a layer, shared with `helpers` other threads, and waits for them. */
export function runShared(
  kernels: Kernels,
  buffer: ArrayBufferLike,
  base: number,
  stride: number,
  count: number,
  helpers: number,
): void {
  const control = words(buffer);
  const threads = count >= WORTH_SHARING ? Math.min(helpers, MOST_HELPERS) + 1 : 1;
  const [from, to] = range(count, 0, threads);
  if (threads > 1) {
    control[BASE] = base;
    control[STRIDE] = stride;
    control[COUNT] = count;
    control[THREADS] = threads;
    Atomics.store(control, DONE, 0);
    Atomics.add(control, JOB, 1);
    Atomics.notify(control, JOB);
  }
  runProgram(kernels, buffer, PROGRAM, base, stride, from, to);
  control[TAKEN]! += Math.min(to, count) - from;
  for (let done = Atomics.load(control, DONE); threads > 1 && done < threads - 1; done = Atomics.load(control, DONE))
    Atomics.wait(control, DONE, done);
}

/** A helper's whole life: waits for jobs, takes its range of each. Returns when the crew is stopped. */
export function helpCrew(kernels: Kernels, buffer: ArrayBufferLike, thread: number): void {
  const control = words(buffer);
  let job = 0;
  for (;;) {
    Atomics.wait(control, JOB, job);
    if (Atomics.load(control, STOP) === 1) return;
    const next = Atomics.load(control, JOB);
    if (next === job) continue;
    job = next;
    if (thread < control[THREADS]!) {
      const [from, to] = range(control[COUNT]!, thread, control[THREADS]!);
      runProgram(kernels, buffer, PROGRAM, control[BASE]!, control[STRIDE]!, from, to);
      control[TAKEN + thread]! += Math.min(to, control[COUNT]!) - from;
      Atomics.add(control, DONE, 1);
      Atomics.notify(control, DONE);
    }
  }
}

/** Lets the helpers of a memory go. */
export function stopCrew(buffer: ArrayBufferLike): void {
  const control = words(buffer);
  Atomics.store(control, STOP, 1);
  Atomics.add(control, JOB, 1);
  Atomics.notify(control, JOB);
}

/** Particle-steps each thread has taken, the conductor first. */
export const stepsTaken = (buffer: ArrayBufferLike, threads: number): number[] =>
  Array.from({ length: threads }, (_, k) => words(buffer)[TAKEN + k]!);
