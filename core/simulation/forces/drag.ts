import type { Force } from '../../document/index.ts';
import { forceNumber, forceWhere, type BoundForce, type ForceSurroundings } from './force.ts';

/** Slows what moves; several drags add up, and the integrator solves their sum exactly. */
export function drag(force: Extract<Force, { kind: 'drag' }>, around: ForceSurroundings): BoundForce {
  const strength = forceNumber(force, 'strength', around);
  const air = forceNumber(force, 'air', around);
  return {
    phase: 'acceleration',
    readers: [strength, air],
    where: forceWhere(force, around),
    write(writer) {
      writer.drag(strength);
      if (air.isConstant && air.low === 0) return;
      const seconds = Math.fround(writer.seconds);
      writer.call('airDrag', [...writer.value(air), seconds, 1 / seconds]);
    },
  };
}
