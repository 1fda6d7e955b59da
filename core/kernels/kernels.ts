import { attraction } from './attraction.ts';
import { curl } from './curl.ts';
import { drag } from './drag.ts';
import { gravity } from './gravity.ts';
import { integrate } from './integrate.ts';
import { vortex } from './vortex.ts';
import type { TwinMemory } from './twin.ts';

const TWINS = { gravity, drag, attraction, vortex, curl, integrate };

export type KernelName = keyof typeof TWINS;
export type Kernels = { readonly [K in KernelName]: ReturnType<(typeof TWINS)[K]> };

/** The kernels in plain TypeScript: the specification, and what runs where there is no SIMD. */
export function twinKernels(memory: TwinMemory): Kernels {
  return Object.fromEntries(Object.entries(TWINS).map(([name, make]) => [name, make(memory)])) as unknown as Kernels;
}

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
