import { cross, length, subtract, type Vec3 } from '../maths/index.ts';
import { boneNamed, type Rig } from './rig.ts';

/** Chooses spots on a rig's rest surface, as likely on each square metre as on any other. */
export class SurfaceSampler {
  /** Running sum of the triangles' areas, in square metres. */
  readonly #sums: Float64Array;

  /** With bone names, a triangle counts by the share of its weight that those bones hold. */
  constructor(rig: Rig, boneNames: readonly string[]) {
    const chosen = new Set(boneNames.map((name) => boneNamed(rig, name)));
    const { positions, joints, weights, indices } = rig.mesh;
    const corner = (i: number): Vec3 => [positions[i * 3]!, positions[i * 3 + 1]!, positions[i * 3 + 2]!];
    const share = (i: number): number => {
      let sum = 0;
      for (let k = 0; k < 4; k++) if (chosen.has(joints[i * 4 + k]!)) sum += weights[i * 4 + k]!;
      return sum;
    };
    this.#sums = new Float64Array(indices.length / 3);
    let sum = 0;
    for (let triangle = 0; triangle < this.#sums.length; triangle++) {
      const [a, b, c] = [indices[triangle * 3]!, indices[triangle * 3 + 1]!, indices[triangle * 3 + 2]!];
      const area = length(cross(subtract(corner(b), corner(a)), subtract(corner(c), corner(a)))) / 2;
      sum += boneNames.length === 0 ? area : (area * (share(a) + share(b) + share(c))) / 3;
      this.#sums[triangle] = sum;
    }
  }

  /** Square metres that births can fall on; 0 where none of the bones moves any skin. */
  get area(): number {
    return this.#sums[this.#sums.length - 1] ?? 0;
  }

  /** Writes the spot for three random numbers 0 ≤ u < 1 (uniform in the triangle: Turk, 1990, Generating Random Points in Triangles). */
  spotInto(spot: { triangle: number; second: number; third: number }, u: number, v: number, w: number): void {
    const wanted = u * this.area;
    let low = 0;
    let high = this.#sums.length - 1;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.#sums[middle]! > wanted) high = middle;
      else low = middle + 1;
    }
    const root = Math.sqrt(v);
    spot.triangle = low;
    spot.second = Math.fround(root * (1 - w));
    spot.third = Math.fround(root * w);
  }
}
