import type { Force } from '../../document/index.ts';
import { forceNumber, inverseReach, nearSquared, type BoundForce, type ForceSurroundings } from './force.ts';

/** Draws particles to a place: a point of the effect, the figure's feet, or a bone as it moves. */
export function attraction(force: Extract<Force, { kind: 'attraction' }>, around: ForceSurroundings): BoundForce {
  const { scene, group } = around;
  const reach = forceNumber(force, 'reach', around, group.scale);
  return {
    strengths: [forceNumber(force, 'strength', around, group.scale)],
    call: ({ time, shared }) => {
      const { at } = scene.placeAt(force.place, time, group.matrix).rigid;
      return { kernel: 'attraction', values: [...at, nearSquared(group.scale), inverseReach(reach.read(shared))] };
    },
  };
}
