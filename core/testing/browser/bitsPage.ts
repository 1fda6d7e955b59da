import type { KernelBytes } from '../../kernels/index.ts';
import type { BitsOrder } from './bitsWorker.ts';

// The page that asks a worker for the hashes of random effects.
export interface BitsAnswer {
  readonly id: number;
  readonly hashes: Record<number, string | null>;
  readonly living: number;
}
declare global {
  interface Window {
    bitsOf: (seed: number, route: BitsOrder['route'], threads: number) => Promise<BitsAnswer>;
  }
}

const bytesOf = async (name: string) => new Uint8Array(await (await fetch(`/${name}.wasm`)).arrayBuffer());
const kernels = Promise.all([bytesOf('shared'), bytesOf('plain')]).then(([shared, plain]): KernelBytes => ({
  shared,
  plain,
}));
/** A worker's own workers are asked for past whoever answers the page: their script is handed to them. */
const helper = fetch('/helper.js').then(async (answer) => URL.createObjectURL(await answer.blob()));
const runner = new Worker('/worker.js');
let next = 0;

window.bitsOf = async (seed, route, threads) => {
  const order: BitsOrder = { id: next++, seed, route, threads, kernels: await kernels, helper: await helper };
  return new Promise((resolve, reject) => {
    runner.onmessage = ({ data }: MessageEvent<BitsAnswer>) => data.id === order.id && resolve(data);
    runner.onerror = ({ message }) => reject(new Error(message));
    runner.postMessage(order);
  });
};
