import { parentPort, workerData } from 'node:worker_threads';
import { wasmKernels } from '../kernels/index.ts';
import { helpCrew } from '../simulation/index.ts';
import { kernelBytes } from './kernelBytes.ts';

const { memory, thread } = workerData as { memory: WebAssembly.Memory; thread: number };
const kernels = wasmKernels(kernelBytes(), memory);
parentPort!.postMessage('ready');
helpCrew(kernels, memory.buffer, thread);
