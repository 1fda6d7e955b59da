import { cross, quaternionOf, subtract, unit, type Rigid, type Vec3 } from '../maths/index.ts';
import type { Rig } from './rig.ts';

/** A point on a mesh that stays on it while it bends: a triangle and the weights of its second and third corners. */
export interface Spot {
  readonly triangle: number;
  readonly second: number;
  readonly third: number;
}

/** A vertex under linear blend skinning; `matrices` holds 16 numbers a bone from `o` on. */
export function skinnedVertex(rig: Rig, matrices: Float32Array, vertex: number, o = 0): Vec3 {
  const { positions, joints, weights } = rig.mesh;
  const px = positions[vertex * 3]!;
  const py = positions[vertex * 3 + 1]!;
  const pz = positions[vertex * 3 + 2]!;
  let x = 0;
  let y = 0;
  let z = 0;
  for (let k = 0; k < 4; k++) {
    const weight = weights[vertex * 4 + k]!;
    if (weight === 0) continue;
    const m = o + joints[vertex * 4 + k]! * 16;
    x += weight * (matrices[m]! * px + matrices[m + 4]! * py + matrices[m + 8]! * pz + matrices[m + 12]!);
    y += weight * (matrices[m + 1]! * px + matrices[m + 5]! * py + matrices[m + 9]! * pz + matrices[m + 13]!);
    z += weight * (matrices[m + 2]! * px + matrices[m + 6]! * py + matrices[m + 10]! * pz + matrices[m + 14]!);
  }
  return [Math.fround(x), Math.fround(y), Math.fround(z)];
}

/** A spot's place and direction: origin at the spot, x along the first edge, y along the outward normal. */
export function spotFrame(a: Vec3, b: Vec3, c: Vec3, spot: Spot): Rigid {
  const first = 1 - spot.second - spot.third;
  const edge = subtract(b, a);
  const normal = unit(cross(edge, subtract(c, a)));
  const x = unit(edge, [1, 0, 0]);
  return {
    at: [
      a[0] * first + b[0] * spot.second + c[0] * spot.third,
      a[1] * first + b[1] * spot.second + c[1] * spot.third,
      a[2] * first + b[2] * spot.second + c[2] * spot.third,
    ],
    turn: quaternionOf(x, normal, cross(x, normal)),
  };
}

/** The frame of a spot under a pose, skinning only its own three corners. */
export function posedSpot(rig: Rig, matrices: Float32Array, spot: Spot): Rigid {
  const corner = (index: number) => skinnedVertex(rig, matrices, rig.mesh.indices[spot.triangle * 3 + index]!);
  return spotFrame(corner(0), corner(1), corner(2), spot);
}

/** A mesh in one pose; each vertex is skinned when it is first asked for. */
export class PosedMesh {
  readonly rig: Rig;
  /** 16 numbers a bone: what takes rest vertices to this pose. */
  readonly matrices: Float32Array;
  readonly #vertices: Float32Array;
  readonly #madeFor: Uint32Array;
  #pose = 0;

  constructor(rig: Rig) {
    this.rig = rig;
    this.matrices = new Float32Array(rig.bones.length * 16);
    this.#vertices = new Float32Array(rig.mesh.positions.length);
    this.#madeFor = new Uint32Array(rig.mesh.positions.length / 3);
  }

  setPose(matrices: Float32Array): void {
    this.matrices.set(matrices);
    this.#pose++;
  }

  vertex(index: number): Vec3 {
    const v = this.#vertices;
    if (this.#madeFor[index] !== this.#pose) {
      v.set(skinnedVertex(this.rig, this.matrices, index), index * 3);
      this.#madeFor[index] = this.#pose;
    }
    return [v[index * 3]!, v[index * 3 + 1]!, v[index * 3 + 2]!];
  }

  /** The same bits as {@link posedSpot}: a spot's frame does not depend on who asked before. */
  spot(spot: Spot): Rigid {
    const { indices } = this.rig.mesh;
    const corner = spot.triangle * 3;
    return spotFrame(
      this.vertex(indices[corner]!),
      this.vertex(indices[corner + 1]!),
      this.vertex(indices[corner + 2]!),
      spot,
    );
  }
}
