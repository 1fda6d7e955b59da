import type { Effect } from '@jinx/core/document';
import { wholeOf } from '@jinx/core/editing';
import type { Rig } from '@jinx/core/geometry';
import type { KernelBytes } from '@jinx/core/kernels';
import { measureReach, type Box } from '@jinx/core/simulation';

export interface ReachOrder {
  readonly effect: Effect;
  readonly rigs: readonly (readonly [string, Rig])[];
  readonly kernels: KernelBytes;
}
/** A box in which all of the effect stays; null where nothing of it is ever seen. */
export type ReachAnswer = Box | null;

/** Steps from one look at what it reaches to the next. */
const EVERY = 2;

// Plays an effect once, as fast as that goes, and says what it reaches.
declare const self: DedicatedWorkerGlobalScope;

self.onmessage = ({ data: { effect, rigs, kernels } }: MessageEvent<ReachOrder>) => {
  const { box } = measureReach(wholeOf(effect).effect, new Map(rigs), { kernels }, EVERY);
  self.postMessage(box satisfies ReachAnswer);
};
