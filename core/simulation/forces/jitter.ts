import type { Force } from '../../document/index.ts';
import { hash2, slotOf } from '../../maths/index.ts';
import { forceNumber, forceWhere, type BoundForce, type ForceSurroundings } from './force.ts';

/** Shakes each particle its own way, another way `change` times a second. */
export function jitter(force: Extract<Force, { kind: 'jitter' }>, around: ForceSurroundings): BoundForce {
  const strength = forceNumber(force, 'strength', around);
  const change = forceNumber(force, 'change', around);
  const seed = slotOf(`force/${around.id}/jitter`);
  return {
    phase: 'acceleration',
    readers: [strength],
    where: forceWhere(force, around),
    write(writer) {
      const { now, next, share } = writer.changes(writer.shared(change));
      const seeds = [hash2(seed, now) | 0, hash2(seed, next) | 0];
      writer.call('jitter', [...writer.value(strength), share, ...seeds]);
    },
  };
}
