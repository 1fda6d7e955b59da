import { parentPort } from 'node:worker_threads';
import { wasmKernels } from '../kernels/index.ts';
import { helpCrew } from '../simulation/index.ts';
import { kernelBytes } from './kernelBytes.ts';

// Helps one world after another: each memory that is sent is helped until its crew is stopped.
parentPort!.on('message', ({ memory, thread }: { memory: WebAssembly.Memory; thread: number }) => {
  const kernels = wasmKernels(kernelBytes(), memory);
  parentPort!.postMessage('ready');
  helpCrew(kernels, memory.buffer, thread);
  parentPort!.postMessage('left');
});
