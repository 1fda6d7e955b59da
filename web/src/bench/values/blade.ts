import { atBone, atEffect, type Place, type Vector } from '@jinx/core/document';
import type { Rig } from '@jinx/core/geometry';
import { vec3At } from '@jinx/core/maths';

/** A bone that a figure holds something by: the one it names so, or a hand. */
const holdingBone = ({ bones }: Rig): number => {
  const named = bones.findIndex(({ name }) => /blade|sword|staff|weapon|held/i.test(name));
  return named >= 0 ? named : bones.findIndex(({ name }) => /^hand/i.test(name));
};

/** The furthest point of what hangs on a bone, in the bone's own axes, to the centimetre. */
function tipOf({ mesh, inverseBind }: Rig, bone: number): Vector {
  const m = inverseBind.subarray(bone * 16, bone * 16 + 16);
  let best: Vector = [0, 0, 0];
  let furthest = 0;
  for (let v = 0; v < mesh.positions.length / 3; v++) {
    let weight = 0;
    for (let k = 0; k < 4; k++) if (mesh.joints[v * 4 + k] === bone) weight += mesh.weights[v * 4 + k]!;
    if (weight < 0.5) continue;
    const [x, y, z] = vec3At(mesh.positions, v * 3);
    const at = [0, 1, 2].map((row) => m[row]! * x + m[4 + row]! * y + m[8 + row]! * z + m[12 + row]!) as Vector;
    const distance = Math.hypot(...at);
    if (distance > furthest) [furthest, best] = [distance, at];
  }
  return best.map((x) => Math.round(x * 100) / 100) as Vector;
}

/** The two ends of a first blade: of what the first figure that holds anything holds, or a metre across the effect. */
export function firstBlade(rigs: ReadonlyMap<string, Rig>): [Place, Place] {
  for (const [thing, rig] of rigs) {
    const bone = holdingBone(rig);
    if (bone < 0) continue;
    const { name } = rig.bones[bone]!;
    return [atBone(thing, name), atBone(thing, name, tipOf(rig, bone))];
  }
  return [atEffect([-0.5, 1, 0]), atEffect([0.5, 1, 0])];
}
