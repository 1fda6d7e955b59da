import type { Force } from '../../document/index.ts';
import { unit } from '../../maths/index.ts';
import { forceNumber, inverseReach, nearSquared, type BoundForce, type ForceSurroundings } from './force.ts';

/** Turns particles round an axis, pulls them to it, lifts them along it. */
export function vortex(entry: Extract<Force, { kind: 'vortex' }>, around: ForceSurroundings): BoundForce {
  const { scene, group } = around;
  const reach = forceNumber(entry, 'reach', around, group.scale);
  const base = entry.settings.axis.base;
  const axis = unit(base.kind === 'fixed' && !entry.settings.axis.muted ? base.value : [0, 1, 0]);
  return {
    strengths: ['strength', 'pull', 'lift'].map((name) => forceNumber(entry, name, around, group.scale)),
    call: ({ time, shared }) => {
      const { at } = scene.placeAt(entry.place, time, group.matrix).rigid;
      return {
        kernel: 'vortex',
        values: [...at, ...axis, nearSquared(group.scale), inverseReach(reach.read(shared))],
      };
    },
  };
}
