import { atan2, cos, sin } from './functions.ts';
import { add, cross, scale, unit, type Numbers, type Vec3 } from './vectors.ts';

/** A place with a direction: unit quaternion (x, y, z, w) and position. */
export interface Rigid {
  readonly turn: readonly [number, number, number, number];
  readonly at: Vec3;
}

export type Quaternion = Rigid['turn'];

/** Words of a rigid place in a packed array: turn x, y, z, w, then position x, y, z. */
export const RIGID_WORDS = 7;

export function packRigid({ turn, at }: Rigid, out: Float64Array, o = 0): void {
  for (let i = 0; i < 4; i++) out[o + i] = turn[i]!;
  for (let i = 0; i < 3; i++) out[o + 4 + i] = at[i]!;
}

export const unpackRigid = (from: Float64Array, o = 0): Rigid => ({
  turn: [from[o]!, from[o + 1]!, from[o + 2]!, from[o + 3]!],
  at: [from[o + 4]!, from[o + 5]!, from[o + 6]!],
});

/** Writes the quaternion of a right-handed orthonormal basis given by its columns x, y and z (Shepperd, 1978). */
export function quaternionInto(
  out: Float64Array,
  o: number,
  xx: number,
  xy: number,
  xz: number,
  yx: number,
  yy: number,
  yz: number,
  zx: number,
  zy: number,
  zz: number,
): void {
  const trace = xx + yy + zz;
  if (trace > 0) {
    const s = 2 * Math.sqrt(trace + 1);
    out[o] = (yz - zy) / s;
    out[o + 1] = (zx - xz) / s;
    out[o + 2] = (xy - yx) / s;
    out[o + 3] = s / 4;
  } else if (xx > yy && xx > zz) {
    const s = 2 * Math.sqrt(1 + xx - yy - zz);
    out[o] = s / 4;
    out[o + 1] = (yx + xy) / s;
    out[o + 2] = (zx + xz) / s;
    out[o + 3] = (yz - zy) / s;
  } else if (yy > zz) {
    const s = 2 * Math.sqrt(1 + yy - xx - zz);
    out[o] = (yx + xy) / s;
    out[o + 1] = s / 4;
    out[o + 2] = (zy + yz) / s;
    out[o + 3] = (zx - xz) / s;
  } else {
    const s = 2 * Math.sqrt(1 + zz - xx - yy);
    out[o] = (zx + xz) / s;
    out[o + 1] = (zy + yz) / s;
    out[o + 2] = s / 4;
    out[o + 3] = (xy - yx) / s;
  }
}

const oneTurn = new Float64Array(4);

/** The quaternion of a right-handed orthonormal basis given by its columns. */
export function quaternionOf(x: Vec3, y: Vec3, z: Vec3): Quaternion {
  quaternionInto(oneTurn, 0, x[0], x[1], x[2], y[0], y[1], y[2], z[0], z[1], z[2]);
  return [oneTurn[0]!, oneTurn[1]!, oneTurn[2]!, oneTurn[3]!];
}

/** The rigid part of an affine matrix: its scale and shear are left out. */
export function rigidOf(m: Numbers, o = 0): Rigid {
  const x = unit([m[o]!, m[o + 1]!, m[o + 2]!], [1, 0, 0]);
  const z = unit(cross(x, [m[o + 4]!, m[o + 5]!, m[o + 6]!]), [0, 0, 1]);
  return { turn: quaternionOf(x, cross(z, x), z), at: [m[o + 12]!, m[o + 13]!, m[o + 14]!] };
}

/** Writes the packed rigid part of an affine matrix: its scale and shear are left out. */
export function packRigidOf(m: Numbers, out: Float64Array, o: number): void {
  const xl = Math.sqrt(m[0]! * m[0]! + m[1]! * m[1]! + m[2]! * m[2]!);
  const has = xl > 1e-12;
  const xx = has ? m[0]! / xl : 1;
  const xy = has ? m[1]! / xl : 0;
  const xz = has ? m[2]! / xl : 0;
  let zx = xy * m[6]! - xz * m[5]!;
  let zy = xz * m[4]! - xx * m[6]!;
  let zz = xx * m[5]! - xy * m[4]!;
  const zl = Math.sqrt(zx * zx + zy * zy + zz * zz);
  if (zl > 1e-12) {
    zx /= zl;
    zy /= zl;
    zz /= zl;
  } else [zx, zy, zz] = [0, 0, 1];
  quaternionInto(out, o, xx, xy, xz, zy * xz - zz * xy, zz * xx - zx * xz, zx * xy - zy * xx, zx, zy, zz);
  out[o + 4] = m[12]!;
  out[o + 5] = m[13]!;
  out[o + 6] = m[14]!;
}

/** Writes a vector turned by the packed rigid place at `q`, and moved by it when it is a point. */
export function placedInto(
  out: Float64Array,
  o: number,
  place: Float64Array,
  q: number,
  v: ArrayLike<number>,
  isPoint: boolean,
): void {
  const x = place[q]!;
  const y = place[q + 1]!;
  const z = place[q + 2]!;
  const w = place[q + 3]!;
  const vx = v[0]!;
  const vy = v[1]!;
  const vz = v[2]!;
  const tx = 2 * (y * vz - z * vy);
  const ty = 2 * (z * vx - x * vz);
  const tz = 2 * (x * vy - y * vx);
  const px = isPoint ? place[q + 4]! : 0;
  const py = isPoint ? place[q + 5]! : 0;
  const pz = isPoint ? place[q + 6]! : 0;
  out[o] = px + vx + w * tx + (y * tz - z * ty);
  out[o + 1] = py + vy + w * ty + (z * tx - x * tz);
  out[o + 2] = pz + vz + w * tz + (x * ty - y * tx);
}

export function rotate(q: Quaternion, v: Vec3): Vec3 {
  const axis: Vec3 = [q[0], q[1], q[2]];
  const t = scale(cross(axis, v), 2);
  return add(add(v, scale(t, q[3])), cross(axis, t));
}

/**
 * Words of a motion, which takes a rider along as its carrier goes from one rigid place to another: the turn x, y, z, w,
 * the place that is turned about, and where that place goes.
 */
export const MOTION_WORDS = 10;

/**
 * Writes the motion of a rider that goes with its carrier by `share`: the carrier's motion is a turn about an axis in space
 * and a way along it (Chasles, 1830), and the rider makes the same share of both, the short way round. So many small steps
 * make the same as one large one. `from` and `to` are packed rigid places.
 */
export function motionInto(out: Float64Array, from: Float64Array, to: Float64Array, share: number): void {
  const fx = -from[0]!;
  const fy = -from[1]!;
  const fz = -from[2]!;
  const fw = from[3]!;
  const tx = to[0]!;
  const ty = to[1]!;
  const tz = to[2]!;
  const tw = to[3]!;
  let x = tw * fx + tx * fw + ty * fz - tz * fy;
  let y = tw * fy - tx * fz + ty * fw + tz * fx;
  let z = tw * fz + tx * fy - ty * fx + tz * fw;
  let w = tw * fw - tx * fx - ty * fy - tz * fz;
  let [across, beside] = [share, 0];
  let [nx, ny, nz] = [0, 0, 0];
  if (share !== 1) {
    const sign = w < 0 ? -1 : 1;
    const size = Math.sqrt(x * x + y * y + z * z);
    const half = size < 1e-12 ? 0 : atan2(size, sign * w) * share;
    const s = size < 1e-12 ? 0 : (sign * sin(half)) / size;
    if (size >= 1e-12) {
      [nx, ny, nz] = [(sign * x) / size, (sign * y) / size, (sign * z) / size];
      // What the way across the axis becomes when the turn about that axis is made in part.
      const [sine, less] = [2 * sin(half) * cos(half), 2 * sin(half) * sin(half)];
      const reach = (sign * w) / (2 * size);
      across = less / 2 + reach * sine;
      beside = reach * less - sine / 2;
    }
    x *= s;
    y *= s;
    z *= s;
    w = cos(half);
  }
  out[0] = x;
  out[1] = y;
  out[2] = z;
  out[3] = w;
  const [wx, wy, wz] = [to[4]! - from[4]!, to[5]! - from[5]!, to[6]! - from[6]!];
  const along = nx * wx + ny * wy + nz * wz;
  const [px, py, pz] = [wx - along * nx, wy - along * ny, wz - along * nz];
  for (let axis = 0; axis < 3; axis++) out[4 + axis] = from[4 + axis]!;
  out[7] = from[4]! + along * nx * share + px * across + (ny * pz - nz * py) * beside;
  out[8] = from[5]! + along * ny * share + py * across + (nz * px - nx * pz) * beside;
  out[9] = from[6]! + along * nz * share + pz * across + (nx * py - ny * px) * beside;
}

/** The three coordinates of points or directions, an array each. */
export type Axes = readonly [Values, Values, Values];
type Values = Float32Array | Float64Array;

/** Writes at `i` the vector (px, py, pz), turned by a motion, from the origin (ox, oy, oz). */
function turnedInto(
  motion: Float64Array,
  out: Axes,
  i: number,
  px: number,
  py: number,
  pz: number,
  ox: number,
  oy: number,
  oz: number,
): void {
  const x = motion[0]!;
  const y = motion[1]!;
  const z = motion[2]!;
  const w = motion[3]!;
  const tx = 2 * (y * pz - z * py);
  const ty = 2 * (z * px - x * pz);
  const tz = 2 * (x * py - y * px);
  out[0][i] = ox + px + w * tx + (y * tz - z * ty);
  out[1][i] = oy + py + w * ty + (z * tx - x * tz);
  out[2][i] = oz + pz + w * tz + (x * ty - y * tx);
}

/** Takes point `i` along by a motion. */
export function movePoint(m: Float64Array, points: Axes, i: number): void {
  const [xs, ys, zs] = points;
  turnedInto(m, points, i, xs[i]! - m[4]!, ys[i]! - m[5]!, zs[i]! - m[6]!, m[7]!, m[8]!, m[9]!);
}

/** Turns direction `i` by a motion. */
export function moveDirection(m: Float64Array, directions: Axes, i: number): void {
  const [xs, ys, zs] = directions;
  turnedInto(m, directions, i, xs[i]!, ys[i]!, zs[i]!, 0, 0, 0);
}
