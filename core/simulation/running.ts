import type { Travel } from './due.ts';
import type { CompiledLayer } from './compiled.ts';
import type { Population } from './population.ts';

/** A layer with particles of its own, as it runs. */
export interface Running {
  compiled: CompiledLayer;
  readonly population: Population;
  readonly travel: Travel;
  /** Birth number with which each turn of a hold without a seam begins. */
  turnStart: number;
  /** What its last step cost. */
  microseconds: number;
}
