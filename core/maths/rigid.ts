import { atan2, cos, sin } from './functions.ts';
import { add, cross, scale, subtract, unit, type Numbers, type Vec3 } from './vectors.ts';

/** A place with a direction: unit quaternion (x, y, z, w) and position. */
export interface Rigid {
  readonly turn: readonly [number, number, number, number];
  readonly at: Vec3;
}

type Quaternion = Rigid['turn'];

const product = (a: Quaternion, b: Quaternion): Quaternion => [
  a[3] * b[0] + a[0] * b[3] + a[1] * b[2] - a[2] * b[1],
  a[3] * b[1] - a[0] * b[2] + a[1] * b[3] + a[2] * b[0],
  a[3] * b[2] + a[0] * b[1] - a[1] * b[0] + a[2] * b[3],
  a[3] * b[3] - a[0] * b[0] - a[1] * b[1] - a[2] * b[2],
];

/** The quaternion of a right-handed orthonormal basis given by its columns (Shepperd, 1978). */
export function quaternionOf(x: Vec3, y: Vec3, z: Vec3): Quaternion {
  const trace = x[0] + y[1] + z[2];
  if (trace > 0) {
    const s = 2 * Math.sqrt(trace + 1);
    return [(y[2] - z[1]) / s, (z[0] - x[2]) / s, (x[1] - y[0]) / s, s / 4];
  }
  if (x[0] > y[1] && x[0] > z[2]) {
    const s = 2 * Math.sqrt(1 + x[0] - y[1] - z[2]);
    return [s / 4, (y[0] + x[1]) / s, (z[0] + x[2]) / s, (y[2] - z[1]) / s];
  }
  if (y[1] > z[2]) {
    const s = 2 * Math.sqrt(1 + y[1] - x[0] - z[2]);
    return [(y[0] + x[1]) / s, s / 4, (z[1] + y[2]) / s, (z[0] - x[2]) / s];
  }
  const s = 2 * Math.sqrt(1 + z[2] - x[0] - y[1]);
  return [(z[0] + x[2]) / s, (z[1] + y[2]) / s, s / 4, (x[1] - y[0]) / s];
}

/** The rigid part of an affine matrix: its scale and shear are left out. */
export function rigidOf(m: Numbers, o = 0): Rigid {
  const x = unit([m[o]!, m[o + 1]!, m[o + 2]!], [1, 0, 0]);
  const z = unit(cross(x, [m[o + 4]!, m[o + 5]!, m[o + 6]!]), [0, 0, 1]);
  return { turn: quaternionOf(x, cross(z, x), z), at: [m[o + 12]!, m[o + 13]!, m[o + 14]!] };
}

export function rotate(q: Quaternion, v: Vec3): Vec3 {
  const axis: Vec3 = [q[0], q[1], q[2]];
  const t = scale(cross(axis, v), 2);
  return add(add(v, scale(t, q[3])), cross(axis, t));
}

/** The turn that leads from one carrier's direction to another's. */
export const turnBetween = (from: Rigid, to: Rigid): Quaternion =>
  product(to.turn, [-from.turn[0], -from.turn[1], -from.turn[2], from.turn[3]]);

/** A share of a turn, the short way round. */
export function shareOfTurn(q: Quaternion, share: number): Quaternion {
  if (share === 1) return q;
  const positive: Quaternion = q[3] < 0 ? [-q[0], -q[1], -q[2], -q[3]] : q;
  const size = Math.sqrt(positive[0] * positive[0] + positive[1] * positive[1] + positive[2] * positive[2]);
  if (size < 1e-12) return [0, 0, 0, 1];
  const half = atan2(size, positive[3]) * share;
  const s = sin(half) / size;
  return [positive[0] * s, positive[1] * s, positive[2] * s, cos(half)];
}

/** Where a point goes when its carrier moves from one place to another and it rides by `share`. */
export function carried(point: Vec3, from: Rigid, to: Rigid, turn: Quaternion, share: number): Vec3 {
  const centre = add(from.at, scale(subtract(to.at, from.at), share));
  return add(centre, rotate(turn, subtract(point, from.at)));
}
