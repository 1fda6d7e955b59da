import { ON_FACE, type MeetingSide } from '../../geometry/index.ts';
import { AT, EVERYWHERE, NORMAL, SHARE, SPOT, VELOCITY, type Body } from './body.ts';

/** The matrix of something at a time, seconds of the effect's time. */
export type MatrixInto = (out: Float64Array, time: number) => void;

/** An endless plane at the origin of a place, its front toward the place's Y. */
export class PlaneBody implements Body {
  readonly box = EVERYWHERE;
  readonly #matrixInto: MatrixInto;
  readonly #offset: number;
  #start = new Float64Array(16);
  #end = new Float64Array(16);
  #seconds = 1;

  /** The plane that is met lies `offset` metres in front. */
  constructor(matrixInto: MatrixInto, offset: number) {
    this.#matrixInto = matrixInto;
    this.#offset = offset;
  }

  pose(from: number, to: number): void {
    this.#matrixInto(this.#start, from);
    this.#matrixInto(this.#end, to);
    this.#seconds = to - from;
  }

  /** How far in front of the plane a point is, under a matrix without scale. */
  #height(m: Float64Array, x: number, y: number, z: number): number {
    return (x - m[12]!) * m[4]! + (y - m[13]!) * m[5]! + (z - m[14]!) * m[6]! - this.#offset;
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
    const atStart = this.#height(p, x0, y0, z0);
    const h0 = from === 0 ? atStart : atStart + (this.#height(q, x0, y0, z0) - atStart) * from;
    const h1 = this.#height(q, x1, y1, z1);
    // Where both sides are met, whoever is on it must leave it first.
    const off = side === 'both' ? ON_FACE : -ON_FACE;
    const isAbove = h0 >= off && h1 < 0 && h1 < h0 && side !== 'inside';
    const isBelow = -h0 >= off && h1 > 0 && h1 > h0 && side !== 'outside';
    if (!isAbove && !isBelow) return false;
    const t = Math.min(1, Math.max(0, h0 / (h0 - h1)));
    const share = from + t * (1 - from);
    out[SHARE] = share;
    out[AT] = x0 + (x1 - x0) * t;
    out[AT + 1] = y0 + (y1 - y0) * t;
    out[AT + 2] = z0 + (z1 - z0) * t;
    const [x, y, z] = [4, 5, 6].map((w) => p[w]! + (q[w]! - p[w]!) * share) as [number, number, number];
    const size = (isAbove ? 1 : -1) / Math.sqrt(x * x + y * y + z * z);
    out[NORMAL] = x * size;
    out[NORMAL + 1] = y * size;
    out[NORMAL + 2] = z * size;
    this.#spotInto(out, p, q, share);
    this.#velocityInto(out, out[SPOT]!, out[SPOT + 1]!, out[SPOT + 2]!);
    return true;
  }

  /** The touched spot in the place's own axes. */
  #spotInto(out: Float64Array, p: Float64Array, q: Float64Array, share: number): void {
    for (let axis = 0; axis < 3; axis++) {
      let along = 0;
      for (let k = 0; k < 3; k++) {
        const origin = p[12 + k]! + (q[12 + k]! - p[12 + k]!) * share;
        along += (out[AT + k]! - origin) * (p[axis * 4 + k]! + (q[axis * 4 + k]! - p[axis * 4 + k]!) * share);
      }
      out[SPOT + axis] = along;
    }
  }

  #velocityInto(out: Float64Array, a: number, b: number, c: number): void {
    const p = this.#start;
    const q = this.#end;
    for (let k = 0; k < 3; k++) {
      const moved =
        q[12 + k]! - p[12 + k]! + (q[k]! - p[k]!) * a + (q[4 + k]! - p[4 + k]!) * b + (q[8 + k]! - p[8 + k]!) * c;
      out[VELOCITY + k] = moved / this.#seconds;
    }
  }

  holdInto(out: Float64Array, a: number, b: number, c: number): void {
    const q = this.#end;
    for (let k = 0; k < 3; k++) {
      out[AT + k] = q[12 + k]! + q[k]! * a + q[4 + k]! * b + q[8 + k]! * c;
      out[NORMAL + k] = q[4 + k]!;
    }
    this.#velocityInto(out, a, b, c);
  }

  nearestInto(out: Float64Array, x: number, y: number, z: number, within: number): number {
    const q = this.#end;
    const height = this.#height(q, x, y, z);
    if (Math.abs(height) > within) return Infinity;
    out[AT] = x - q[4]! * height;
    out[AT + 1] = y - q[5]! * height;
    out[AT + 2] = z - q[6]! * height;
    this.#spotInto(out, q, q, 1);
    this.holdInto(out, out[SPOT]!, out[SPOT + 1]!, out[SPOT + 2]!);
    return Math.abs(height);
  }
}
