import { findings, type Finding, type Observed, type StageRigs } from '@jinx/core/checks';
import type { Effect } from '@jinx/core/document';

/** What the page asks to have looked through. Rigs go along only where they are others than before. */
export interface CheckOrder {
  readonly id: number;
  readonly effect: Effect;
  readonly observed: Observed;
  readonly rigs: StageRigs | null;
}

/** A finding with its mend's label alone: the step itself stays where the document is. */
export type ToldFinding = Omit<Finding, 'mend'> & { readonly mend: string | null };
export interface CheckAnswer {
  readonly id: number;
  readonly found: readonly ToldFinding[];
}

// Looks an effect through beside the page, so that nothing that is being typed or dragged waits for it.
declare const self: DedicatedWorkerGlobalScope;
let rigs: StageRigs = new Map();

self.onmessage = ({ data }: MessageEvent<CheckOrder>) => {
  rigs = data.rigs ?? rigs;
  const found = findings(data.effect, rigs, data.observed).map((finding) => ({
    ...finding,
    mend: finding.mend?.label ?? null,
  }));
  self.postMessage({ id: data.id, found } satisfies CheckAnswer);
};
