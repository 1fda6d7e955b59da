import { wasmKernels, type KernelBytes } from '@jinx/core/kernels';
import { helpCrew } from '@jinx/core/simulation';

// A second simulation thread: joins the crew of whichever world's memory it is given, until that crew is stopped.
declare const self: DedicatedWorkerGlobalScope;

self.onmessage = ({ data }: MessageEvent<{ kernels: KernelBytes; port: MessagePort }>) => {
  const { kernels, port } = data;
  port.onmessage = ({ data: memory }: MessageEvent<WebAssembly.Memory>) =>
    helpCrew(wasmKernels(kernels, memory), memory.buffer, 1);
};
