import type { WorkerEnd } from './playerEnd.ts';

function newWorker(code: string): Worker {
  const address = URL.createObjectURL(new Blob([code], { type: 'text/javascript' }));
  const worker = new Worker(address);
  // It has fetched its code by the time it says anything.
  worker.addEventListener('message', () => URL.revokeObjectURL(address), { once: true });
  return worker;
}

/** Starts a worker of that code; and, where the page may share memory, another that computes in the same, with the way to it. */
export function startThreads(code: string): { readonly end: WorkerEnd; readonly helper: MessagePort | null } {
  const worker = newWorker(code);
  if (!globalThis.crossOriginIsolated) return { end: { worker, close: () => worker.terminate() }, helper: null };
  const { port1, port2 } = new MessageChannel();
  const second = newWorker(code);
  second.postMessage({ kind: 'help', port: port1 }, [port1]);
  const close = () => {
    worker.terminate();
    second.terminate();
  };
  return { end: { worker, close }, helper: port2 };
}
