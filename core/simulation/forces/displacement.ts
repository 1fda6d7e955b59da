import type { Force } from '../../document/index.ts';
import { forceNumber, forceWhere, type BoundForce, type ForceSurroundings } from './force.ts';

/** Moves particles by a way per axis that changes with age: each step by what it has changed. */
export function displacement(force: Extract<Force, { kind: 'displacement' }>, around: ForceSurroundings): BoundForce {
  const readers = ['x', 'y', 'z'].map((name) => forceNumber(force, name, around));
  return {
    phase: 'velocity',
    readers,
    where: forceWhere(force, around),
    write(writer) {
      for (const [when, sign] of [['end', 1] as const, ['start', -1] as const]) {
        const ways = readers.flatMap((reader) => writer.value(reader, when, sign));
        writer.call('shift', [...ways, ...writer.axes(), 1, writer.step, Math.fround(writer.seconds)]);
      }
    },
  };
}
