import type { Force } from '../../document/index.ts';
import {
  forceVector,
  forceChoice,
  forceNumber,
  forceWhere,
  type BoundForce,
  type ForceSurroundings,
} from './force.ts';

/** Holds particles at a distance from an axis or a point, going round at a speed or at their own. */
export function orbit(force: Extract<Force, { kind: 'orbit' }>, around: ForceSurroundings): BoundForce {
  const distance = forceNumber(force, 'distance', around);
  const speed = forceNumber(force, 'speed', around);
  const grip = forceNumber(force, 'grip', around, 0.01);
  const hasAxis = forceChoice(force, 'about') === 'axis';
  const axis = forceVector(force, 'axis');
  const keepsItsOwn = !hasAxis || (speed.isConstant && speed.low === 0);
  return {
    phase: 'constraint',
    readers: [distance, speed, grip],
    where: forceWhere(force, around),
    write(writer) {
      const held = [...writer.plain(distance), ...writer.plain(speed), keepsItsOwn ? 0 : 1];
      const round = hasAxis ? writer.direction(axis) : [0, 0, 0];
      const firm = writer.value(grip);
      writer.call('orbit', [...held, ...writer.at, ...round, ...firm, Math.fround(writer.seconds)]);
    },
  };
}
