import type { KernelBytes } from '../../kernels/index.ts';
import { stopCrew } from '../../simulation/index.ts';
import { hashesOn, worldOf, type Route } from '../bits.ts';

// Runs random effects in a browser's worker, with helpers of its own.
declare const self: DedicatedWorkerGlobalScope;

export interface BitsOrder {
  readonly id: number;
  readonly seed: number;
  readonly route: Route;
  readonly threads: number;
  readonly kernels: KernelBytes;
  /** Where the helpers' script is. */
  readonly helper: string;
}

const helpers: Worker[] = [];
const heard = (worker: Worker, word: string) =>
  new Promise<void>((resolve) => {
    const hear = ({ data }: MessageEvent) => {
      if (data !== word) return;
      worker.removeEventListener('message', hear);
      resolve();
    };
    worker.addEventListener('message', hear);
  });

async function run({ id, seed, route, threads, kernels, helper: script }: BitsOrder): Promise<void> {
  while (helpers.length < threads - 1) helpers.push(new Worker(script));
  const crew = helpers.slice(0, threads - 1);
  const world = worldOf(seed, {
    kernels,
    worthSharing: 1,
    ...(threads > 1 ? { shared: true, helpers: crew.length } : {}),
  });
  await Promise.all(
    crew.map((helper, n) => {
      const ready = heard(helper, 'ready');
      helper.postMessage({ kernels, memory: world.memory, thread: n + 1 });
      return ready;
    }),
  );
  const hashes = hashesOn(world, route);
  const left = Promise.all(crew.map((helper) => heard(helper, 'left')));
  if (crew.length > 0) stopCrew(world.memory.buffer);
  await left;
  self.postMessage({ id, hashes, living: world.living });
}

self.onmessage = ({ data }: MessageEvent<BitsOrder>) => void run(data);
