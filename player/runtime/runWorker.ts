import plain from '../../core/kernels/plain.wasm';
import shared from '../../core/kernels/shared.wasm';
import { wasmKernels } from '@jinx/core/kernels';
import { helpCrew } from '@jinx/core/simulation';
import type { FromPlayer, ToPlayer } from './messages.ts';
import { Runtime } from './runtime.ts';
import type { Screen } from './screen.ts';

declare const self: DedicatedWorkerGlobalScope;

type Start = Extract<ToPlayer, { kind: 'start' }>;
type Tell = (message: FromPlayer, transfer?: Transferable[]) => void;

const kernels = { shared, plain };
const NO_GRAPHICS = 'The effect cannot be drawn: this browser gave no WebGL 2. Turn on hardware or software drawing.';

/** Helps another worker to compute, in whichever memory it is given. */
function help(port: MessagePort): void {
  port.onmessage = ({ data: memory }: MessageEvent<WebAssembly.Memory>) =>
    helpCrew(wasmKernels(kernels, memory), memory.buffer, 1);
}

/** Runs a worker that plays effects on a screen; or, told so first, the thread that helps it to compute. */
export function runWorker(screenFor: (start: Start, tell: Tell) => Screen): void {
  const tell: Tell = (message, transfer = []) => self.postMessage(message, transfer);
  let runtime: Runtime | null = null;
  const loop = () => {
    self.requestAnimationFrame(loop);
    runtime!.turn(performance.now());
  };
  self.onmessage = ({ data }: MessageEvent<ToPlayer | { kind: 'help'; port: MessagePort }>) => {
    if (data.kind === 'help') return help(data.port);
    if (data.kind !== 'start') return runtime?.take(data);
    let screen: Screen;
    try {
      screen = screenFor(data, tell);
    } catch {
      return tell({ kind: 'failed', sentence: NO_GRAPHICS });
    }
    runtime = new Runtime(screen, data.helper, kernels, tell);
    loop();
  };
}
