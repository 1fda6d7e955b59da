import type { Force } from '../../document/index.ts';
import { hash2, slotOf } from '../../maths/index.ts';
import { forceNumber, forceVector, forceWhere, type BoundForce, type ForceSurroundings } from './force.ts';

/** Stirs particles by swirls that neither gather nor thin them; the field becomes another `change` times a second. */
export function curl(force: Extract<Force, { kind: 'curl' }>, around: ForceSurroundings): BoundForce {
  const { effect, group, id } = around;
  const strength = forceNumber(force, 'strength', around);
  const size = forceNumber(force, 'size', around);
  const change = forceNumber(force, 'change', around);
  const drift = forceVector(force, 'drift');
  const seed = hash2(effect.seed, slotOf(`force/${id}/field`));
  return {
    phase: 'acceleration',
    readers: [strength],
    where: forceWhere(force, around),
    write(writer) {
      const inverse = 1 / writer.shared(size);
      const { now, next, share: t } = writer.changes(writer.shared(change));
      const drifted = drift.map((metres) => metres * group.scale * writer.time * inverse);
      const seeds = [hash2(seed, now) | 0, hash2(seed, next) | 0];
      writer.call('curl', [...writer.value(strength), inverse, ...drifted, t * t * (3 - 2 * t), ...seeds]);
    },
  };
}
