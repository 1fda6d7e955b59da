import { layout, type Kernels } from '../../kernels/index.ts';
import { CONTROL, MOST_THREADS, PROGRAM, SCRATCH } from './memory.ts';

/**
 * Threads that step a population together. Control words, from CONTROL on:
 *
 * | 0 | number of the job: changed and notified to start one                          |
 * | 1 | helpers that have finished the job                                            |
 * | 2 | base address of the layer   | 3 | stride | 4 | particles                      |
 * | 5 | threads                                                                       |
 * | 6 | 1 when the crew is to stop                                                    |
 * | 7 | first particle that no thread has taken yet                                   |
 * | 8 + k | particle-steps taken by thread k (0 is the conductor)                     |
 * | 24 | helpers that have joined the job; negative once nobody may join any more     |
 *
 * A helper that has not joined by the time the conductor finds nothing left to take is not waited for: it may be slow to
 * wake, or gone.
 *
 * Each thread takes the next stretch of particles until none is left, so that none waits for one that woke late. Who
 * takes which changes nothing: stretches are whole groups of four, each particle is computed by itself, and nothing is
 * summed across threads.
 */
const JOB = 0;
const DONE = 1;
const BASE = 2;
const STRIDE = 3;
const COUNT = 4;
const THREADS = 5;
const STOP = 6;
const NEXT = 7;
const TAKEN = 8;
const JOINED = 24;
const CLOSED = -0x80000000;

/** Longest wait for a helper that has joined. A stretch takes far less than a millisecond. */
const PATIENCE_MILLISECONDS = 5000;

/** A helper joined a job and never finished it: the state of the world is half stepped. */
export class CrewError extends Error {
  constructor() {
    super('A thread of the simulation stopped answering.');
  }
}

const MOST_HELPERS = MOST_THREADS - 1;

/** Below this many particles, waking a helper costs more than it saves. */
const WORTH_SHARING = 2048;

/** Particles of a stretch: a few blocks, so that taking one costs nothing beside stepping it. */
const STRETCH = 4 * layout.BLOCK;

/** Looks this often whether a job has come or is done before going to sleep, since waking takes longer than a stretch. */
const LOOKS = 4000;

const scratchOf = (thread: number): number => SCRATCH + thread * layout.SCRATCH_BYTES;
const controls = new WeakMap<ArrayBufferLike, Int32Array>();
/** The control words of a memory. */
function words(buffer: ArrayBufferLike): Int32Array {
  let control = controls.get(buffer);
  if (!control) controls.set(buffer, (control = new Int32Array(buffer, CONTROL, 32)));
  return control;
}

/** Waits while a control word has a value: watching it first, then asleep. Returns false once that took too long. */
function waitWhile(control: Int32Array, word: number, value: number, milliseconds = Infinity): boolean {
  for (let look = 0; look < LOOKS; look++) if (Atomics.load(control, word) !== value) return true;
  return Atomics.wait(control, word, value, milliseconds) !== 'timed-out';
}

/** Joins the present job. Returns false where it is closed. */
function join(control: Int32Array): boolean {
  for (;;) {
    const joined = Atomics.load(control, JOINED);
    if (joined < 0) return false;
    if (Atomics.compareExchange(control, JOINED, joined, joined + 1) === joined) return true;
  }
}

/** Takes stretches of the job until none is left. */
function takeStretches(kernels: Kernels, control: Int32Array, thread: number): void {
  const count = control[COUNT]!;
  const size = Math.min(STRETCH, Math.ceil(count / (4 * control[THREADS]!) / 4) * 4);
  for (;;) {
    const from = Atomics.add(control, NEXT, size);
    if (from >= count) return;
    const to = Math.min(from + size, Math.ceil(count / 4) * 4);
    kernels.run(PROGRAM, control[BASE]!, control[STRIDE]!, from, to, scratchOf(thread));
    control[TAKEN + thread]! += Math.min(to, count) - from;
  }
}

/**
 * Runs the program over all particles of a layer, shared with those of `helpers` other threads that wake in time.
 * @throws {CrewError} when a helper that has joined does not finish within `patience` milliseconds.
 */
export function runShared(
  kernels: Kernels,
  buffer: ArrayBufferLike,
  base: number,
  stride: number,
  count: number,
  helpers: number,
  worthSharing = WORTH_SHARING,
  patience = PATIENCE_MILLISECONDS,
): void {
  const control = words(buffer);
  const threads = count >= worthSharing ? Math.min(helpers, MOST_HELPERS) + 1 : 1;
  if (threads === 1) {
    kernels.run(PROGRAM, base, stride, 0, Math.ceil(count / 4) * 4, scratchOf(0));
    control[TAKEN]! += count;
    return;
  }
  control[BASE] = base;
  control[STRIDE] = stride;
  control[COUNT] = count;
  control[THREADS] = threads;
  Atomics.store(control, NEXT, 0);
  Atomics.store(control, DONE, 0);
  Atomics.store(control, JOINED, 0);
  Atomics.add(control, JOB, 1);
  Atomics.notify(control, JOB);
  takeStretches(kernels, control, 0);
  const joined = Atomics.or(control, JOINED, CLOSED);
  for (let done = Atomics.load(control, DONE); done < joined; done = Atomics.load(control, DONE))
    if (!waitWhile(control, DONE, done, patience)) throw new CrewError();
}

/** A helper's whole life: waits for jobs, takes its part of each. Returns when the crew is stopped. */
export function helpCrew(kernels: Kernels, buffer: ArrayBufferLike, thread: number): void {
  const control = words(buffer);
  let job = 0;
  for (;;) {
    waitWhile(control, JOB, job);
    if (Atomics.load(control, STOP) === 1) return;
    const next = Atomics.load(control, JOB);
    if (next === job) continue;
    job = next;
    if (!join(control)) continue;
    if (thread < control[THREADS]!) takeStretches(kernels, control, thread);
    Atomics.add(control, DONE, 1);
    Atomics.notify(control, DONE);
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
const stepsTaken = (buffer: ArrayBufferLike, threads: number): number[] =>
  Array.from({ length: threads }, (_, k) => words(buffer)[TAKEN + k]!);

/** Share of the work that each thread of a memory has done so far. */
export function threadShares(buffer: ArrayBufferLike, threads: number): number[] {
  const taken = stepsTaken(buffer, threads);
  const sum = taken.reduce((a, b) => a + b, 0);
  return taken.map((steps) => (sum > 0 ? steps / sum : 0));
}
