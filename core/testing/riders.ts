import { skinnedVertex, type Rig } from '../geometry/index.ts';
import { newFrame, type Frame, type Instance } from '../simulation/index.ts';

export function frameOf(world: Instance): Frame {
  const frame = newFrame(world);
  world.writeFrame(frame);
  return frame;
}

/**
 * Metres from where each particle of a one-layer world is drawn to where its own spot of skin is drawn at the same
 * moment between steps, by the sums the stage does. Of the newborn only: at the moment of their birth.
 */
export function distancesToSkin(
  world: Instance,
  layerId: string,
  rig: Rig,
  share: number,
  onlyNewborn: boolean,
): number[] {
  const frame = frameOf(world);
  const population = world.population(layerId)!;
  return Array.from({ length: population.count }, (_, i) => i).flatMap((i) => {
    if (onlyNewborn && population.birthStep[i] !== world.step - 1) return [];
    const moment = onlyNewborn ? population.birthFraction[i]! : share;
    const place = frame.drawn(i, moment);
    if (!place) return [];
    const pose = frame.skin(moment);
    const weights = [
      1 - population.spotSecond[i]! - population.spotThird[i]!,
      population.spotSecond[i]!,
      population.spotThird[i]!,
    ];
    const spot = [0, 0, 0];
    weights.forEach((weight, corner) => {
      const vertex = skinnedVertex(rig, pose, rig.mesh.indices[population.spot[i]! * 3 + corner]!);
      vertex.forEach((value, axis) => (spot[axis]! += weight * value));
    });
    return [Math.hypot(...place.map((value, axis) => value - spot[axis]!))];
  });
}
