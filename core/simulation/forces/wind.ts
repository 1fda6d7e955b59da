import type { Force } from '../../document/index.ts';
import { scale } from '../../maths/index.ts';
import { forceVector, forceNumber, forceWhere, type BoundForce, type ForceSurroundings } from './force.ts';

/** Carries particles along: they take up a share of the difference to the wind each second. */
export function wind(entry: Extract<Force, { kind: 'wind' }>, around: ForceSurroundings): BoundForce {
  const strength = forceNumber(entry, 'strength', around);
  const speed = forceNumber(entry, 'speed', around);
  const axis = forceVector(entry, 'axis');
  return {
    phase: 'acceleration',
    readers: [strength],
    where: forceWhere(entry, around),
    write(writer) {
      writer.push(strength, scale(writer.direction(axis), writer.shared(speed)));
      writer.drag(strength);
    },
  };
}
