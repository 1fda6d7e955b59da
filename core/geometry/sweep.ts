/** Metres behind a face at which a point still counts as being on it. */
export const ON_FACE = 1e-5;

/** How far outside of a triangle, as a share of it, a point still meets it, so that no two neighbours leave a crack. */
const EDGE = 1e-7;

/** Halvings that find an instant of contact: a share of the step too small for any number here to tell. */
const HALVINGS = 52;

const det = (a: Float64Array, i: number, b: Float64Array, j: number, c: Float64Array, k: number): number =>
  a[i]! * (b[j + 1]! * c[k + 2]! - b[j + 2]! * c[k + 1]!) +
  a[i + 1]! * (b[j + 2]! * c[k]! - b[j]! * c[k + 2]!) +
  a[i + 2]! * (b[j]! * c[k + 1]! - b[j + 1]! * c[k]!);

/** A cubic by its Bernstein coefficients, at t. */
function cubicAt(g0: number, g1: number, g2: number, g3: number, t: number): number {
  const u = 1 - t;
  return u * u * (u * g0 + 3 * t * g1) + t * t * (3 * u * g2 + t * g3);
}

/** Where a cubic that is at least 0 at `low` and below 0 at `high` passes 0. */
function crossing(g0: number, g1: number, g2: number, g3: number, low: number, high: number): number {
  for (let i = 0; i < HALVINGS; i++) {
    const middle = 0.5 * (low + high);
    if (cubicAt(g0, g1, g2, g3, middle) >= 0) low = middle;
    else high = middle;
  }
  return low;
}

/**
 * Sweeps a point against one moving triangle: every place goes evenly from where it is at the start to where it is at
 * the end. The volume that the point spans with the triangle is then a cubic of time, whose zeros are when the point
 * lies in the triangle's plane (Provot, 1997, Collision and self-collision handling). Keeps its own room.
 */
export class TriangleSweep {
  /** Corners less the point, three at the start and three at the end, as {@link set} leaves them. */
  readonly #start = new Float64Array(9);
  readonly #end = new Float64Array(9);
  readonly #at = new Float64Array(9);
  /** Of the last contact: when (share of the sweep), weights of the second and third corner, normal (not of length 1). */
  time = 0;
  second = 0;
  third = 0;
  readonly normal = new Float64Array(3);

  /** Takes one corner (0, 1, 2) relative to the point: at the start, and at the end. */
  corner(n: number, x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): void {
    const o = n * 3;
    this.#start[o] = x0;
    this.#start[o + 1] = y0;
    this.#start[o + 2] = z0;
    this.#end[o] = x1;
    this.#end[o + 1] = y1;
    this.#end[o + 2] = z1;
  }

  /** Twice the triangle's area, at the start or the end. */
  #doubleArea(c: Float64Array): number {
    const ex = c[3]! - c[0]!;
    const ey = c[4]! - c[1]!;
    const ez = c[5]! - c[2]!;
    const gx = c[6]! - c[0]!;
    const gy = c[7]! - c[1]!;
    const gz = c[8]! - c[2]!;
    const nx = ey * gz - ez * gy;
    const ny = ez * gx - ex * gz;
    const nz = ex * gy - ey * gx;
    return Math.sqrt(nx * nx + ny * ny + nz * nz);
  }

  /**
   * Whether the point passes the triangle, no later than `before`: from its front to its back, or with `isFromBack` the other
   * way. A point within {@link ON_FACE} of it is on it: it meets it unless it is on the way off, or, with `isBoth` (where
   * both sides are met), not until it has left it. A triangle
   * that is the same at start and end may be told to be still. Fills `time`, `second`, `third` and `normal` when it does.
   */
  meets(before: number, isFromBack: boolean, isBoth: boolean, isStill: boolean): boolean {
    const p = this.#start;
    const q = this.#end;
    const sign = isFromBack ? 1 : -1;
    const g0 = sign * det(p, 0, p, 3, p, 6);
    const g3 = sign * det(q, 0, q, 3, q, 6);
    // Past a triangle that stands still the volume changes evenly.
    const g1 = isStill ? g0 + (g3 - g0) / 3 : (sign * this.#between(p, q)) / 3;
    const g2 = isStill ? g3 + (g0 - g3) / 3 : (sign * this.#between(q, p)) / 3;
    if (g0 >= 0 && g1 >= 0 && g2 >= 0 && g3 >= 0) return false;
    const isOn = Math.abs(g0) <= ON_FACE * this.#doubleArea(p);
    if (isOn && isBoth) return false;
    if (isOn && g0 < 0 && g1 < g0 && this.#isInside(0)) return true;
    if (isStill) return g0 >= 0 && g0 / (g0 - g3) <= before && this.#isInside(g0 / (g0 - g3));
    // A triangle that turns may be passed by a point that was behind its plane at first.
    return !(g0 < 0 && g1 < 0 && g2 < 0 && g3 < 0) && this.#passes(g0, g1, g2, g3, before);
  }

  /** Volumes with one corner of `q` and two of `p`, summed. */
  #between(p: Float64Array, q: Float64Array): number {
    return det(q, 0, p, 3, p, 6) + det(p, 0, q, 3, p, 6) + det(p, 0, p, 3, q, 6);
  }

  #passes(g0: number, g1: number, g2: number, g3: number, before: number): boolean {
    // Between the zeros of its slope (a parabola) the cubic only rises or only falls.
    const d0 = g1 - g0;
    const d1 = g2 - g1;
    const d2 = g3 - g2;
    const a = d0 - 2 * d1 + d2;
    const b = d1 - d0;
    const root = b * b - a * d0;
    let first = 1;
    let second = 1;
    if (root > 0) {
      const q = -(b + (b >= 0 ? 1 : -1) * Math.sqrt(root));
      const x = a !== 0 ? q / a : 2;
      const y = q !== 0 ? d0 / q : 2;
      first = x < y ? x : y;
      second = x < y ? y : x;
    }
    let low = 0;
    for (let piece = 0; piece < 3 && low <= before; piece++) {
      const turn = piece === 0 ? first : piece === 1 ? second : 1;
      const high = turn > low && turn < 1 ? turn : piece === 2 ? 1 : low;
      if (high === low) continue;
      const isFront = cubicAt(g0, g1, g2, g3, low) >= 0;
      if (isFront && cubicAt(g0, g1, g2, g3, high) < 0) {
        const t = crossing(g0, g1, g2, g3, low, high);
        if (t > before) return false;
        if (this.#isInside(t)) return true;
      }
      low = high;
    }
    return false;
  }

  /** Whether the point, in the triangle's plane at `t`, lies within its edges; fills what a contact tells. */
  #isInside(t: number): boolean {
    const c = this.#at;
    for (let i = 0; i < 9; i++) c[i] = this.#start[i]! + (this.#end[i]! - this.#start[i]!) * t;
    const ex = c[3]! - c[0]!;
    const ey = c[4]! - c[1]!;
    const ez = c[5]! - c[2]!;
    const gx = c[6]! - c[0]!;
    const gy = c[7]! - c[1]!;
    const gz = c[8]! - c[2]!;
    const nx = ey * gz - ez * gy;
    const ny = ez * gx - ex * gz;
    const nz = ex * gy - ey * gx;
    const squared = nx * nx + ny * ny + nz * nz;
    if (!(squared > 0)) return false;
    const second =
      ((c[7]! * c[2]! - c[8]! * c[1]!) * nx +
        (c[8]! * c[0]! - c[6]! * c[2]!) * ny +
        (c[6]! * c[1]! - c[7]! * c[0]!) * nz) /
      squared;
    const third =
      ((c[1]! * c[5]! - c[2]! * c[4]!) * nx +
        (c[2]! * c[3]! - c[0]! * c[5]!) * ny +
        (c[0]! * c[4]! - c[1]! * c[3]!) * nz) /
      squared;
    if (second < -EDGE || third < -EDGE || second + third > 1 + EDGE) return false;
    this.time = t;
    this.second = second;
    this.third = third;
    this.normal[0] = nx;
    this.normal[1] = ny;
    this.normal[2] = nz;
    return true;
  }
}
