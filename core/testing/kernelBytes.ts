import { readFileSync } from 'node:fs';
import type { KernelBytes } from '../kernels/index.ts';

/** The built kernels, for tests, benchmarks and the server. */
export const kernelBytes = (): KernelBytes => ({
  shared: readFileSync(new URL('../kernels/shared.wasm', import.meta.url)),
  plain: readFileSync(new URL('../kernels/plain.wasm', import.meta.url)),
});
