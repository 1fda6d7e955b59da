import { quaternionInto, RIGID_WORDS, rotate, subtract, unpackRigid, type Rigid, type Vec3 } from '../maths/index.ts';
import type { Rig } from './rig.ts';

/** A point on a mesh that stays on it while it bends: a triangle and the weights of its second and third corners. */
export interface Spot {
  readonly triangle: number;
  readonly second: number;
  readonly third: number;
}

/**
 * Writes a vertex under linear blend skinning, in single precision; `matrices` holds 16 numbers a bone from `m0` on.
 */
export function skinVertexInto(
  out: Float32Array,
  o: number,
  { mesh }: Rig,
  matrices: Float32Array,
  vertex: number,
  m0 = 0,
): void {
  const { positions, joints, weights } = mesh;
  const px = positions[vertex * 3]!;
  const py = positions[vertex * 3 + 1]!;
  const pz = positions[vertex * 3 + 2]!;
  let x = 0;
  let y = 0;
  let z = 0;
  for (let k = 0; k < 4; k++) {
    const weight = weights[vertex * 4 + k]!;
    if (weight === 0) continue;
    const m = m0 + joints[vertex * 4 + k]! * 16;
    x += weight * (matrices[m]! * px + matrices[m + 4]! * py + matrices[m + 8]! * pz + matrices[m + 12]!);
    y += weight * (matrices[m + 1]! * px + matrices[m + 5]! * py + matrices[m + 9]! * pz + matrices[m + 13]!);
    z += weight * (matrices[m + 2]! * px + matrices[m + 6]! * py + matrices[m + 10]! * pz + matrices[m + 14]!);
  }
  out[o] = x;
  out[o + 1] = y;
  out[o + 2] = z;
}

/** A vertex under linear blend skinning. */
export function skinnedVertex(rig: Rig, matrices: Float32Array, vertex: number, m0 = 0): Vec3 {
  const out = new Float32Array(3);
  skinVertexInto(out, 0, rig, matrices, vertex, m0);
  return [out[0]!, out[1]!, out[2]!];
}

const inverseLength = (x: number, y: number, z: number): number => {
  const size = Math.sqrt(x * x + y * y + z * z);
  return size > 1e-12 ? 1 / size : 0;
};

/**
 * Writes a spot's packed rigid place: origin at the spot, x along the triangle's first edge, y along its outward normal.
 * The corners lie at words `a`, `b` and `c` of `corners`. A triangle without area has the world's own directions.
 */
function spotFrameInto(
  out: Float64Array,
  o: number,
  corners: Float32Array,
  a: number,
  b: number,
  c: number,
  second: number,
  third: number,
): void {
  const ax = corners[a]!;
  const ay = corners[a + 1]!;
  const az = corners[a + 2]!;
  const bx = corners[b]!;
  const by = corners[b + 1]!;
  const bz = corners[b + 2]!;
  const cx = corners[c]!;
  const cy = corners[c + 1]!;
  const cz = corners[c + 2]!;
  const ex = bx - ax;
  const ey = by - ay;
  const ez = bz - az;
  const gx = cx - ax;
  const gy = cy - ay;
  const gz = cz - az;
  const mx = ey * gz - ez * gy;
  const my = ez * gx - ex * gz;
  const mz = ex * gy - ey * gx;
  const edge = inverseLength(ex, ey, ez);
  const area = inverseLength(mx, my, mz);
  if (edge === 0 || area === 0) quaternionInto(out, o, 1, 0, 0, 0, 1, 0, 0, 0, 1);
  else {
    const xx = ex * edge;
    const xy = ey * edge;
    const xz = ez * edge;
    const nx = mx * area;
    const ny = my * area;
    const nz = mz * area;
    quaternionInto(out, o, xx, xy, xz, nx, ny, nz, xy * nz - xz * ny, xz * nx - xx * nz, xx * ny - xy * nx);
  }
  const first = 1 - second - third;
  out[o + 4] = ax * first + bx * second + cx * third;
  out[o + 5] = ay * first + by * second + cy * third;
  out[o + 6] = az * first + bz * second + cz * third;
}

/** Writes the packed rigid place of a spot on a triangle whose corners are nine numbers. */
export function cornersSpotInto(
  out: Float64Array,
  o: number,
  corners: Float32Array,
  second: number,
  third: number,
): void {
  spotFrameInto(out, o, corners, 0, 3, 6, second, third);
}

const threeCorners = new Float32Array(9);
const onePlace = new Float64Array(RIGID_WORDS);

/** Writes the packed rigid place of a spot under a pose, skinning only its own three corners. */
export function posedSpotInto(
  out: Float64Array,
  o: number,
  rig: Rig,
  matrices: Float32Array,
  triangle: number,
  second: number,
  third: number,
): void {
  for (let corner = 0; corner < 3; corner++)
    skinVertexInto(threeCorners, corner * 3, rig, matrices, rig.mesh.indices[triangle * 3 + corner]!);
  cornersSpotInto(out, o, threeCorners, second, third);
}

/** The frame of a spot under a pose. */
export function posedSpot(rig: Rig, matrices: Float32Array, { triangle, second, third }: Spot): Rigid {
  posedSpotInto(onePlace, 0, rig, matrices, triangle, second, third);
  return unpackRigid(onePlace);
}

/** Writes where a spot lies on the mesh at rest. */
export function restPlaceInto(
  out: Float64Array,
  o: number,
  { positions, indices }: Rig['mesh'],
  triangle: number,
  second: number,
  third: number,
): void {
  const a = indices[triangle * 3]! * 3;
  const b = indices[triangle * 3 + 1]! * 3;
  const c = indices[triangle * 3 + 2]! * 3;
  const first = 1 - second - third;
  for (let axis = 0; axis < 3; axis++)
    out[o + axis] = positions[a + axis]! * first + positions[b + axis]! * second + positions[c + axis]! * third;
}

/** The frame of a spot on the rest mesh. */
export function restSpotFrame({ mesh }: Rig, { triangle, second, third }: Spot) {
  const place = new Float64Array(RIGID_WORDS);
  const [a, b, c] = [0, 1, 2].map((corner) => mesh.indices[triangle * 3 + corner]! * 3) as [number, number, number];
  spotFrameInto(place, 0, mesh.positions, a, b, c, second, third);
  const { turn, at } = unpackRigid(place);
  const back: Rigid['turn'] = [-turn[0], -turn[1], -turn[2], turn[3]];
  return {
    /** A point of the rest mesh's space, as seen from the spot. */
    toLocal: (point: Vec3): [number, number, number] => [...rotate(back, subtract(point, at))],
  };
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

  /** Word at which a corner's place stands among the vertices, skinned if it was not yet. */
  #corner(index: number): number {
    const vertex = this.rig.mesh.indices[index]!;
    if (this.#madeFor[vertex] !== this.#pose) {
      skinVertexInto(this.#vertices, vertex * 3, this.rig, this.matrices, vertex);
      this.#madeFor[vertex] = this.#pose;
    }
    return vertex * 3;
  }

  /** Writes a spot's packed rigid place: the same bits as {@link posedSpot}, whoever asked before. */
  spotInto(out: Float64Array, o: number, triangle: number, second: number, third: number): void {
    const a = this.#corner(triangle * 3);
    const b = this.#corner(triangle * 3 + 1);
    const c = this.#corner(triangle * 3 + 2);
    spotFrameInto(out, o, this.#vertices, a, b, c, second, third);
  }

  spot({ triangle, second, third }: Spot): Rigid {
    this.spotInto(onePlace, 0, triangle, second, third);
    return unpackRigid(onePlace);
  }
}
