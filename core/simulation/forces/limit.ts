import type { Force } from '../../document/index.ts';
import { forceNumber, forceWhere, type BoundForce, type ForceSurroundings } from './force.ts';

/** Keeps speeds below a limit. */
export function limit(force: Extract<Force, { kind: 'limit' }>, around: ForceSurroundings): BoundForce {
  const fastest = forceNumber(force, 'fastest', around);
  const grip = forceNumber(force, 'grip', around, 0.01);
  return {
    phase: 'constraint',
    readers: [fastest, grip],
    where: forceWhere(force, around),
    write: (writer) => writer.call('limit', [...writer.plain(fastest), ...writer.value(grip)]),
  };
}
