import type { Force } from '../../document/index.ts';
import { add, scale } from '../../maths/index.ts';
import {
  forceVector,
  forceChoice,
  forceNumber,
  forceWhere,
  nearSquared,
  type BoundForce,
  type ForceSurroundings,
} from './force.ts';

/** Draws particles to a place: a point, or the nearest point of a line through it. */
export function attraction(force: Extract<Force, { kind: 'attraction' }>, around: ForceSurroundings): BoundForce {
  const { group } = around;
  const strength = forceNumber(force, 'strength', around, group.scale);
  const length = forceNumber(force, 'length', around, group.scale);
  const near = nearSquared(group.scale);
  const axis = forceVector(force, 'axis');
  const toLine = forceChoice(force, 'toward') === 'line';
  return {
    phase: 'acceleration',
    readers: [strength],
    where: forceWhere(force, around),
    write(writer) {
      const inverse = writer.ownFade();
      const value = writer.value(strength);
      const metres = toLine ? writer.shared(length) : 0;
      if (metres === 0) return writer.call('attraction', [...value, ...writer.at, near, inverse]);
      const along = scale(writer.direction(axis), metres);
      const start = add(writer.at, scale(along, -0.5));
      writer.call('attractionLine', [...value, ...start, ...along, 1 / (metres * metres), near, inverse]);
    },
  };
}
