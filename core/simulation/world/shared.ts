import type { Kernels } from '../../kernels/index.ts';
import type { Scratch } from '../run/memory.ts';

/** What all instances of a world step with. */
export interface Shared {
  readonly memory: WebAssembly.Memory;
  readonly scratch: Scratch;
  /** Where three frames lie in it, and of how many bytes each is; null without any. */
  readonly frames: { readonly address: number; readonly bytes: number } | null;
  readonly kernels: Kernels;
  /** Steps a second. */
  readonly rate: number;
  /** Threads beside this one that have joined the crew (run/crew.ts). */
  readonly helpers: number;
  /** Particles from which on a layer is shared with the crew; fewer cost more to share than to step. */
  readonly worthSharing?: number;
  /** Microseconds, for what each layer costs; nothing computed depends on it. */
  readonly now?: () => number;
}
