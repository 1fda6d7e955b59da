import { wasmKernels, type KernelBytes } from '../../kernels/index.ts';
import { helpCrew } from '../../simulation/index.ts';

// A helper of bitsWorker.ts: each memory that is sent is helped until its crew is stopped.
declare const self: DedicatedWorkerGlobalScope;

self.onmessage = ({ data }: MessageEvent<{ kernels: KernelBytes; memory: WebAssembly.Memory; thread: number }>) => {
  const kernels = wasmKernels(data.kernels, data.memory);
  self.postMessage('ready');
  helpCrew(kernels, data.memory.buffer, data.thread);
  self.postMessage('left');
};
