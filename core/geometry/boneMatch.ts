import { IDENTITY, length, subtract, type Vec3, vec3At } from '../maths/index.ts';
import { Poser } from './pose.ts';
import type { Rig } from './rig.ts';

/** The bone of another rig that takes the place of one, and what it was found by. */
export interface BoneMatch {
  readonly bone: string;
  readonly to: string;
  readonly by: 'name' | 'likeness' | 'place';
}

/** Words of a name, in any order and spelling: "upperArm.L", "left_upper_arm" and "UpperArmLeft" are alike. */
function likenessOf(name: string): string {
  const words = name
    .replace(/^.*:/, '')
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase()
    .split(/[^a-z0-9]+|(?<=[a-z])(?=\d)/)
    .filter(Boolean)
    .map((word) => (word === 'left' ? 'l' : word === 'right' ? 'r' : word));
  return words.sort().join(' ');
}

/** Where the bones of a rig rest, in heights of its mesh, from the middle of what it stands on. */
function placesOf(rig: Rig): Vec3[] {
  const { positions } = rig.mesh;
  const [least, most] = [0, 1, 2].reduce<[number[], number[]]>(
    (ends, axis) => {
      let [low, high] = [Infinity, -Infinity];
      for (let at = axis; at < positions.length; at += 3) {
        low = Math.min(low, positions[at]!);
        high = Math.max(high, positions[at]!);
      }
      return [
        [...ends[0], low],
        [...ends[1], high],
      ];
    },
    [[], []],
  );
  const height = most[1]! - least[1]! || 1;
  const base = [(least[0]! + most[0]!) / 2, least[1]!, (least[2]! + most[2]!) / 2];
  const world = new Float64Array(rig.bones.length * 16);
  new Poser(rig).sample(undefined, 0, Float64Array.from(IDENTITY), world);
  return rig.bones.map((_, bone) => {
    const [x, y, z] = vec3At(world, bone * 16 + 12);
    return [(x - base[0]!) / height, (y - base[1]!) / height, (z - base[2]!) / height];
  });
}

/**
 * The bones of `to` that take the places of `bones` of `from`: of the same name, else of a name of the same words, else the
 * one that rests nearest when both are as tall. The same bone may take the place of several. What `from` does not have is
 * looked for by its name alone.
 */
export function matchBones(from: Rig, to: Rig, bones: readonly string[]): BoneMatch[] {
  const [own, others] = [placesOf(from), placesOf(to)];
  const nearest = (bone: string): string => {
    const at: Vec3 = own[from.bones.findIndex(({ name }) => name === bone)] ?? [0, 0, 0];
    const far = (place: Vec3) => length(subtract(place, at));
    let best = 0;
    others.forEach((place, n) => (best = far(place) < far(others[best]!) ? n : best));
    return to.bones[best]!.name;
  };
  return bones.map((bone): BoneMatch => {
    if (to.bones.some(({ name }) => name === bone)) return { bone, to: bone, by: 'name' };
    const alike = to.bones.find(({ name }) => likenessOf(name) === likenessOf(bone));
    return alike ? { bone, to: alike.name, by: 'likeness' } : { bone, to: nearest(bone), by: 'place' };
  });
}
