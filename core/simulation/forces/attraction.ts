import type { Force } from '../../document/index.ts';
import { TARGET_ARRAYS } from '../targets.ts';
import { add, scale } from '../../maths/index.ts';
import {
  forceVector,
  forceChoice,
  forceNumber,
  forceWhere,
  softnessSquared,
  type BoundForce,
  type ForceSurroundings,
} from './force.ts';

/** Draws particles to a point, to the nearest point of a line or of a thing's skin, or each to the spot it was born on. */
export function attraction(force: Extract<Force, { kind: 'attraction' }>, around: ForceSurroundings): BoundForce {
  const strength = forceNumber(force, 'strength', around);
  const length = forceNumber(force, 'length', around);
  const near = softnessSquared(force, around);
  const axis = forceVector(force, 'axis');
  const toward = forceChoice(force, 'toward');
  const toLine = toward === 'line';
  const kind = toward === 'skin' || toward === 'own spot' ? toward : null;
  return {
    phase: 'acceleration',
    readers: [strength],
    // A target of each particle's own: its reach is measured from there, and always fades softly.
    where: kind ? { ...forceWhere(force, around), falloff: 0 } : forceWhere(force, around),
    arrays: kind ? TARGET_ARRAYS : 0,
    write(writer) {
      const inverse = writer.ownFade();
      const value = writer.value(strength);
      if (kind) return writer.call('attractionEach', [...value, ...writer.targets(kind), near, inverse]);
      const metres = toLine ? writer.shared(length) : 0;
      if (metres === 0) return writer.call('attraction', [...value, ...writer.at, near, inverse]);
      const along = scale(writer.direction(axis), metres);
      const start = add(writer.at, scale(along, -0.5));
      writer.call('attractionLine', [...value, ...start, ...along, 1 / (metres * metres), near, inverse]);
    },
  };
}
