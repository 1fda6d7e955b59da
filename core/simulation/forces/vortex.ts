import type { Force } from '../../document/index.ts';
import {
  forceVector,
  forceNumber,
  forceWhere,
  softnessSquared,
  type BoundForce,
  type ForceSurroundings,
} from './force.ts';

/** Turns particles round an axis, pulls them to it, lifts them along it. */
export function vortex(entry: Extract<Force, { kind: 'vortex' }>, around: ForceSurroundings): BoundForce {
  const readers = ['strength', 'pull', 'lift'].map((name) => forceNumber(entry, name, around));
  const axis = forceVector(entry, 'axis');
  const near = softnessSquared(entry, around);
  return {
    phase: 'acceleration',
    readers,
    where: forceWhere(entry, around),
    write(writer) {
      const inverse = writer.ownFade();
      const values = readers.flatMap((reader) => writer.value(reader));
      writer.call('vortex', [...values, ...writer.at, ...writer.direction(axis), near, inverse]);
    },
  };
}
