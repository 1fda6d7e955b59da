import type { Rig } from './rig.ts';

type Corner = [x: number, y: number, z: number];

interface Box {
  readonly low: Corner;
  readonly high: Corner;
}
/** A mesh at rest is measured once: its positions never change. */
const measured = new WeakMap<Float32Array, Box>();

/** A box around a mesh at rest, metres. */
export function restExtent(positions: Float32Array): Box {
  const known = measured.get(positions) ?? boxAround(positions);
  measured.set(positions, known);
  return known;
}
function boxAround(positions: Float32Array): Box {
  const low: Corner = [Infinity, Infinity, Infinity];
  const high: Corner = [-Infinity, -Infinity, -Infinity];
  positions.forEach((value, i) => {
    low[i % 3] = Math.min(low[i % 3]!, value);
    high[i % 3] = Math.max(high[i % 3]!, value);
  });
  return { low, high };
}

/** The length of a mesh's longest side, metres; 1 for one without any extent. */
export function longestSide(positions: Float32Array): number {
  const { low, high } = restExtent(positions);
  const longest = Math.max(...high.map((value, axis) => value - low[axis]!));
  return longest > 0 && longest < Infinity ? longest : 1;
}

/** A box around the part of a figure that goes with a bone, in the frame of that bone; null where none does. */
export function boneExtent({ bones, inverseBind, mesh }: Rig, name: string): ReturnType<typeof restExtent> | null {
  const bone = bones.findIndex((each) => each.name === name);
  const { positions, joints, weights } = mesh;
  const inFrame: number[] = [];
  for (let vertex = 0; vertex * 3 < positions.length; vertex++) {
    const own = [0, 1, 2, 3].map((n) => (joints[vertex * 4 + n] === bone ? weights[vertex * 4 + n]! : 0));
    if (own.reduce((sum, weight) => sum + weight, 0) < 0.5) continue;
    const [x, y, z] = [positions[vertex * 3]!, positions[vertex * 3 + 1]!, positions[vertex * 3 + 2]!];
    for (let row = 0; row < 3; row++) {
      const at = (column: number) => inverseBind[bone * 16 + column * 4 + row]!;
      inFrame.push(at(0) * x + at(1) * y + at(2) * z + at(3));
    }
  }
  return inFrame.length > 0 ? restExtent(Float32Array.from(inFrame)) : null;
}
