import type { Force } from '../../document/index.ts';
import { forceNumber, type BoundForce, type ForceSurroundings } from './force.ts';

/** Pulls straight down. */
export function gravity(force: Extract<Force, { kind: 'gravity' }>, around: ForceSurroundings): BoundForce {
  return {
    strengths: [forceNumber(force, 'strength', around, around.group.scale)],
    call: () => ({ kernel: 'gravity', values: [] }),
  };
}
