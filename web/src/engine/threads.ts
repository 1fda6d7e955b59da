/// <reference types="vite/client" />
import plainUrl from '../../../core/kernels/plain.wasm?url';
import sharedUrl from '../../../core/kernels/shared.wasm?url';
import type { KernelBytes } from '@jinx/core/kernels';

/** As much of a worker as the engine uses. */
export interface Thread extends Pick<Worker, 'terminate' | 'onmessage' | 'onerror'> {
  postMessage(message: unknown, transfer?: Transferable[]): void;
}

/** What ended a worker, without the browser's words before it. */
export const reasonOf = ({ message }: ErrorEvent): string =>
  message?.replace(/^Uncaught (Error: )?/, '') || 'unknown fault';

/** Where the engine's threads and their code come from. */
export interface Threads {
  simulation(): Thread;
  helper(): Thread;
  stage(): Thread;
  /** Computes instants of effects for pictures of them. */
  instants(): Thread;
  /** @throws an error with a sentence when it cannot be loaded. */
  kernels(): Promise<KernelBytes>;
}

/** The bytes of a part of the application. @throws an error with a sentence when they cannot be had. */
async function fetchPart(url: string): Promise<Uint8Array<ArrayBuffer>> {
  const answer = await fetch(url).catch(() => null);
  if (!answer) throw new Error('The simulation could not be loaded: the server does not answer.');
  if (!answer.ok) throw new Error(`The simulation could not be loaded: the server answered ${answer.status}.`);
  return new Uint8Array(await answer.arrayBuffer());
}

/** The browser's own workers. */
export const BROWSER_THREADS: Threads = {
  simulation: () =>
    new Worker(new URL('../../../player/simulation/simulationWorker.ts', import.meta.url), { type: 'module' }),
  helper: () =>
    new Worker(new URL('../../../player/simulation/helperWorker.ts', import.meta.url), { type: 'module' }),
  instants: () =>
    new Worker(new URL('../../../player/simulation/instantWorker.ts', import.meta.url), { type: 'module' }),
  stage: () => new Worker(new URL('../../../stage/worker.ts', import.meta.url), { type: 'module' }),
  kernels: async () => ({ shared: await fetchPart(sharedUrl), plain: await fetchPart(plainUrl) }),
};
