import { Worker } from 'node:worker_threads';

/** Starts helper.ts in a Node worker, which must first learn to read TypeScript. It says 'ready' when it has joined. */
export function startHelper(memory: WebAssembly.Memory, thread: number): Worker {
  const helper = new URL('./helper.ts', import.meta.url).href;
  const script = `import('tsx/esm/api').then(({ register }) => { register(); return import(${JSON.stringify(helper)}); });`;
  return new Worker(script, { eval: true, workerData: { memory, thread } });
}
