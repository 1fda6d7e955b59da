import type { Force } from '../../document/index.ts';
import { forceNumber, forceWhere, type BoundForce, type ForceSurroundings } from './force.ts';

/** Pulls straight down. */
export function gravity(force: Extract<Force, { kind: 'gravity' }>, around: ForceSurroundings): BoundForce {
  const strength = forceNumber(force, 'strength', around);
  return {
    phase: 'acceleration',
    readers: [strength],
    where: forceWhere(force, around),
    write: (writer) => writer.push(strength, [0, -1, 0]),
  };
}
