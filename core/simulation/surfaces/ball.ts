import { ON_FACE, type MeetingSide } from '../../geometry/index.ts';
import { AT, NORMAL, SHARE, SPOT, VELOCITY, type Body } from './body.ts';
import type { MatrixInto } from './plane.ts';

/** A sphere at the origin of a place, whose radius may change with time. */
export class BallBody implements Body {
  readonly box = new Float64Array(6);
  readonly #matrixInto: MatrixInto;
  readonly #radiusAt: (time: number) => number;
  readonly #offset: number;
  readonly #start = new Float64Array(16);
  readonly #end = new Float64Array(16);
  #r0 = 0;
  #r1 = 0;
  #seconds = 1;

  constructor(matrixInto: MatrixInto, radiusAt: (time: number) => number, offset: number) {
    this.#matrixInto = matrixInto;
    this.#radiusAt = radiusAt;
    this.#offset = offset;
  }

  pose(from: number, to: number): void {
    this.#matrixInto(this.#start, from);
    this.#matrixInto(this.#end, to);
    this.#r0 = this.#radiusAt(from) + this.#offset;
    this.#r1 = this.#radiusAt(to) + this.#offset;
    this.#seconds = to - from;
    for (let axis = 0; axis < 3; axis++) {
      const a = this.#start[12 + axis]!;
      const b = this.#end[12 + axis]!;
      this.box[axis] = Math.min(a - this.#r0, b - this.#r1);
      this.box[3 + axis] = Math.max(a + this.#r0, b + this.#r1);
    }
  }

  /**
   * When, as a share of the sweep, |q + d·t| = r + g·t is passed inward or outward; below 0 when it is not. On the sphere it
   * is met at once unless on the way off, or, where both sides are met, not until it was left.
   */
  #time(q2: number, qd: number, d2: number, r: number, g: number, isInward: boolean, isBoth: boolean): number {
    const a = d2 - g * g;
    const b = qd - r * g;
    const c = q2 - r * r;
    const isOn = Math.abs(Math.sqrt(q2) - r) <= ON_FACE;
    if (isOn && (isBoth || (isInward ? b < 0 : b > 0))) return isBoth ? -1 : 0;
    const root = b * b - a * c;
    if (root < 0) return -1;
    const s = Math.sqrt(root);
    // Of the two zeros, the one where the distance to the sphere falls (inward) or rises (outward).
    if (isInward) return b < 0 ? c / (-b + s) : a < 0 ? (-b - s) / a : -1;
    return b > 0 ? -c / (b + s) : a > 0 ? (-b + s) / a : -1;
  }

  meet(
    out: Float64Array,
    from: number,
    x0: number,
    y0: number,
    z0: number,
    x1: number,
    y1: number,
    z1: number,
    side: MeetingSide,
  ): boolean {
    const p = this.#start;
    const q = this.#end;
    const r = this.#r0 + (this.#r1 - this.#r0) * from;
    const qx = x0 - (p[12]! + (q[12]! - p[12]!) * from);
    const qy = y0 - (p[13]! + (q[13]! - p[13]!) * from);
    const qz = z0 - (p[14]! + (q[14]! - p[14]!) * from);
    const dx = x1 - q[12]! - qx;
    const dy = y1 - q[13]! - qy;
    const dz = z1 - q[14]! - qz;
    const q2 = qx * qx + qy * qy + qz * qz;
    const qd = qx * dx + qy * dy + qz * dz;
    const d2 = dx * dx + dy * dy + dz * dz;
    const inward = side === 'inside' ? -1 : this.#time(q2, qd, d2, r, this.#r1 - r, true, side === 'both');
    const outward = side === 'outside' ? -1 : this.#time(q2, qd, d2, r, this.#r1 - r, false, side === 'both');
    const isIn = inward >= 0 && inward <= 1;
    const isOut = outward >= 0 && outward <= 1;
    if (!isIn && !isOut) return false;
    const isInward = isIn && (!isOut || inward <= outward);
    const t = isInward ? inward : outward;
    const share = from + t * (1 - from);
    const radius = this.#r0 + (this.#r1 - this.#r0) * share;
    out[SHARE] = share;
    out[AT] = x0 + (x1 - x0) * t;
    out[AT + 1] = y0 + (y1 - y0) * t;
    out[AT + 2] = z0 + (z1 - z0) * t;
    const nx = qx + dx * t;
    const ny = qy + dy * t;
    const nz = qz + dz * t;
    const size = Math.sqrt(nx * nx + ny * ny + nz * nz);
    const scale = size > 0 ? (isInward ? 1 : -1) / size : 0;
    out[NORMAL] = nx * scale;
    out[NORMAL + 1] = size > 0 ? ny * scale : 1;
    out[NORMAL + 2] = nz * scale;
    for (let axis = 0; axis < 3; axis++) {
      let along = 0;
      for (let k = 0; k < 3; k++) {
        const turned = p[axis * 4 + k]! + (q[axis * 4 + k]! - p[axis * 4 + k]!) * share;
        along += [nx, ny, nz][k]! * turned;
      }
      out[SPOT + axis] = radius > 0 ? along / radius : 0;
    }
    this.#velocityInto(out, out[SPOT]!, out[SPOT + 1]!, out[SPOT + 2]!);
    return true;
  }

  #velocityInto(out: Float64Array, a: number, b: number, c: number): void {
    const p = this.#start;
    const q = this.#end;
    for (let k = 0; k < 3; k++) {
      const before = p[12 + k]! + this.#r0 * (p[k]! * a + p[4 + k]! * b + p[8 + k]! * c);
      const after = q[12 + k]! + this.#r1 * (q[k]! * a + q[4 + k]! * b + q[8 + k]! * c);
      out[VELOCITY + k] = (after - before) / this.#seconds;
    }
  }

  holdInto(out: Float64Array, a: number, b: number, c: number): void {
    const q = this.#end;
    const size = Math.sqrt(a * a + b * b + c * c) || 1;
    for (let k = 0; k < 3; k++) {
      const way = (q[k]! * a + q[4 + k]! * b + q[8 + k]! * c) / size;
      out[NORMAL + k] = way;
      out[AT + k] = q[12 + k]! + this.#r1 * way;
    }
    this.#velocityInto(out, a, b, c);
  }

  nearestInto(out: Float64Array, x: number, y: number, z: number, within: number): number {
    const q = this.#end;
    const nx = x - q[12]!;
    const ny = y - q[13]!;
    const nz = z - q[14]!;
    const size = Math.sqrt(nx * nx + ny * ny + nz * nz);
    const distance = Math.abs(size - this.#r1);
    if (distance > within) return Infinity;
    for (let axis = 0; axis < 3; axis++)
      out[SPOT + axis] =
        size > 0 ? (nx * q[axis * 4]! + ny * q[axis * 4 + 1]! + nz * q[axis * 4 + 2]!) / size : axis === 1 ? 1 : 0;
    this.holdInto(out, out[SPOT]!, out[SPOT + 1]!, out[SPOT + 2]!);
    return distance;
  }
}
