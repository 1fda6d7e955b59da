import type { Force } from '../../document/index.ts';
import { unit } from '../../maths/index.ts';
import { forceNumber, inverseReach, NEAR_SQUARED, type BoundForce, type ForceSurroundings } from './force.ts';

/** Turns particles round an axis, pulls them to it, lifts them along it. */
export function vortex(force: Extract<Force, { kind: 'vortex' }>, around: ForceSurroundings): BoundForce {
  const { scene, group } = around;
  const reach = forceNumber(force, 'reach', around, group.scale);
  const base = force.settings.axis.base;
  const axis = unit(base.kind === 'fixed' && !force.settings.axis.muted ? base.value : [0, 1, 0]);
  return {
    strengths: ['strength', 'pull', 'lift'].map((name) => forceNumber(force, name, around, group.scale)),
    call: ({ time, shared }) => {
      const { at } = scene.placeAt(force.place, time, group.matrix).rigid;
      return { kernel: 'vortex', values: [...at, ...axis, NEAR_SQUARED, inverseReach(reach.read(shared))] };
    },
  };
}
