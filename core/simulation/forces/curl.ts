import type { Force } from '../../document/index.ts';
import { hash2, slotOf } from '../../maths/index.ts';
import { forceNumber, type BoundForce, type ForceSurroundings } from './force.ts';

/** Stirs particles by swirls that neither gather nor thin them; the field becomes another `change` times a second. */
export function curl(force: Extract<Force, { kind: 'curl' }>, around: ForceSurroundings): BoundForce {
  const { effect, group, id } = around;
  const size = forceNumber(force, 'size', around, group.scale);
  const change = forceNumber(force, 'change', around);
  const seed = hash2(effect.seed, slotOf(`force/${id}/field`));
  return {
    strengths: [forceNumber(force, 'strength', around, group.scale)],
    call: ({ time, shared }) => {
      const fields = time * change.read(shared);
      const field = Math.floor(fields);
      const t = fields - field;
      const blend = t * t * (3 - 2 * t);
      return {
        kernel: 'curl',
        values: [1 / size.read(shared), blend, hash2(seed, field) | 0, hash2(seed, field + 1) | 0],
      };
    },
  };
}
