import type { Travel } from './due.ts';
import type { Inbox } from './inbox.ts';
import type { Population } from './population.ts';
import type { Hits } from './hits.ts';
import type { CompiledLayer } from '../compile/plan.ts';

/** A layer with particles of its own, as it runs. */
export interface Running {
  compiled: CompiledLayer;
  readonly population: Population;
  readonly travel: Travel;
  /** Births that links have set off in it. */
  readonly inbox: Inbox;
  /** Impacts of its last step. */
  readonly hits: Hits;
  /** Birth number with which each turn of a hold without a seam begins. */
  turnStart: number;
  /** The step up to which it is computed. */
  at: number;
  /** The first step at which it is what a run from zero is. It lies ahead in a run that began shortly before it. */
  exactFrom: number;
  /** False after a change was taken over in mid-run. */
  isExact: boolean;
  /** What its last step cost. */
  microseconds: number;
}
