import { StageHub } from './stageHub';
import { BROWSER_THREADS, type Thread, type Threads } from './threads';

/** Threads that have begun, and the stage's worker with a canvas. */
export interface Begun {
  readonly threads: Threads;
  readonly stages: StageHub;
}

/** Gives the thread that has begun to the first who asks; to others, and where it has ended, a new one. */
function startOne(make: () => Thread): () => Thread {
  let waiting: Thread | null = make();
  waiting.onerror = () => (waiting = null);
  return () => {
    const taken = waiting ?? make();
    waiting = taken.onerror = null;
    return taken;
  };
}

/** Starts all that an engine will ask for. */
export function startThreads(threads: Threads): Threads {
  const kernels = threads.kernels().catch(() => null);
  return {
    ...threads,
    simulation: startOne(threads.simulation),
    helper: startOne(threads.helper),
    kernels: async () => (await kernels) ?? threads.kernels(),
  };
}

let begun: Begun | null = null;

/**
 * Starts workers and graphics before the page that needs them is loaded: they take as long, on another core. An engine takes
 * them up.
 */
export function beginEarly(): void {
  const threads = startThreads(BROWSER_THREADS);
  const stages = new StageHub(() => threads.stage());
  stages.prepare(document.createElement('canvas'));
  begun = { threads, stages };
}

/** What has begun, to whom asks first. */
export function takeBegun(): Begun | null {
  const taken = begun;
  begun = null;
  return taken;
}
