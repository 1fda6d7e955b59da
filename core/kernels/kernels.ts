import { dress } from './dress.ts';
import { compact, dying } from './dying.ts';
import { run } from './program.ts';
import type { TwinMemory } from './twin.ts';

/** The hot loops of a step, over the memory of a world. */
export interface Kernels {
  readonly run: ReturnType<typeof run>;
  readonly dress: ReturnType<typeof dress>;
  readonly dying: ReturnType<typeof dying>;
  readonly compact: ReturnType<typeof compact>;
}

/** The kernels in plain TypeScript: the specification, and what runs where there is no SIMD. */
export const twinKernels = (memory: TwinMemory): Kernels => ({
  run: run(memory),
  dress: dress(memory),
  dying: dying(memory),
  compact: compact(memory),
});

/** The built bytes for memory that threads share and for memory they do not; handed in by whoever loads them. */
export interface KernelBytes {
  readonly shared: Uint8Array<ArrayBuffer>;
  readonly plain: Uint8Array<ArrayBuffer>;
}

/** Compiles the SIMD kernels over a memory. */
export function wasmKernels(bytes: KernelBytes, memory: WebAssembly.Memory): Kernels {
  const shared = typeof SharedArrayBuffer !== 'undefined' && memory.buffer instanceof SharedArrayBuffer;
  const module = new WebAssembly.Module(shared ? bytes.shared : bytes.plain);
  return new WebAssembly.Instance(module, { env: { memory } }).exports as unknown as Kernels;
}
