import type { Placed } from '../scene/base.ts';
import type { Strike } from '../sources/source.ts';
import type { Announced } from '../time/signals.ts';

/** What happens to an effect from outside, in simulation time. */
export interface Inputs {
  /** The step in which the effect is let go; absent while it is held. */
  readonly letGoStep?: number;
  /** Blows from outside, in order. */
  readonly strikes?: readonly Strike[];
  /** Signals that were announced from outside, in order. */
  readonly signals?: readonly Announced[];
  /** Where the whole effect was put, in order. */
  readonly places?: readonly Placed[];
}

/** The step of the first of what came from outside in which two lists differ; Infinity where they do not. */
export function firstDiffering(before: readonly { step: number }[], after: readonly { step: number }[]): number {
  const same = after.findIndex((one, n) => JSON.stringify(one) !== JSON.stringify(before[n]));
  const at = same < 0 ? Math.min(after.length, before.length) : same;
  return Math.min(...[after, before].map((list) => list[at]?.step ?? Infinity));
}
