import type { Force } from '../../document/index.ts';
import { forceNumber, type BoundForce, type ForceSurroundings } from './force.ts';

/** Slows what moves; several drags add up, and the integrator solves their sum exactly. */
export function drag(force: Extract<Force, { kind: 'drag' }>, around: ForceSurroundings): BoundForce {
  return {
    strengths: [forceNumber(force, 'strength', around)],
    call: () => ({ kernel: 'drag', values: [] }),
  };
}
