import type { Force } from '../../document/index.ts';
import { forceNumber, forceWhere, softnessSquared, type BoundForce, type ForceSurroundings } from './force.ts';

/** Pushes particles outward as a growing shell passes them. */
export function push(force: Extract<Force, { kind: 'push' }>, around: ForceSurroundings): BoundForce {
  const strength = forceNumber(force, 'strength', around);
  const start = forceNumber(force, 'start', around);
  const speed = forceNumber(force, 'speed', around);
  const near = softnessSquared(force, around);
  const width = forceNumber(force, 'width', around);
  return {
    phase: 'acceleration',
    readers: [strength],
    where: forceWhere(force, around),
    write(writer) {
      const seconds = writer.time - writer.shared(start);
      if (seconds < 0) return;
      const inverse = writer.ownFade();
      const radius = seconds * writer.shared(speed);
      const shell = [radius, 1 / writer.shared(width), near, inverse];
      writer.call('shell', [...writer.value(strength), ...writer.at, ...shell]);
    },
  };
}
