import plain from '../../core/kernels/plain.wasm';
import shared from '../../core/kernels/shared.wasm';
import { wasmKernels } from '@jinx/core/kernels';
import { helpCrew } from '@jinx/core/simulation';
import type { FromPlayer, ToPlayer } from './messages.ts';
import { Runtime } from './runtime.ts';

// The player's worker: computes and draws. Or, told so first, the thread that helps to compute in shared memory.
declare const self: DedicatedWorkerGlobalScope;

const kernels = { shared, plain };
const tell = (message: FromPlayer, transfer: Transferable[] = []) => self.postMessage(message, transfer);
let runtime: Runtime | null = null;

function help(port: MessagePort): void {
  port.onmessage = ({ data: memory }: MessageEvent<WebAssembly.Memory>) =>
    helpCrew(wasmKernels(kernels, memory), memory.buffer, 1);
}

function loop(): void {
  self.requestAnimationFrame(loop);
  runtime!.turn(performance.now());
}

self.onmessage = ({ data }: MessageEvent<ToPlayer | { kind: 'help'; port: MessagePort }>) => {
  if (data.kind === 'help') return help(data.port);
  if (data.kind !== 'start') return runtime?.take(data);
  try {
    runtime = new Runtime(data, kernels, tell);
  } catch {
    const sentence =
      'The effect cannot be drawn: this browser gave no WebGL 2. Turn on hardware or software drawing.';
    return tell({ kind: 'failed', sentence });
  }
  loop();
};
