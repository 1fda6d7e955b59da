import type { Force } from '../../document/index.ts';
import { forceNumber, forceWhere, type BoundForce, type ForceSurroundings } from './force.ts';

/** Moves particles at a speed per axis, beside their own and without momentum. */
export function velocity(force: Extract<Force, { kind: 'velocity' }>, around: ForceSurroundings): BoundForce {
  const readers = ['x', 'y', 'z'].map((name) => forceNumber(force, name, around));
  return {
    phase: 'velocity',
    readers,
    where: forceWhere(force, around),
    write(writer) {
      const ways = readers.flatMap((reader) => writer.value(reader));
      writer.call('shift', [...ways, ...writer.axes(), 0, writer.step, Math.fround(writer.seconds)]);
    },
  };
}
