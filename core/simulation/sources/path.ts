import type { Vector } from '../../document/index.ts';
import { acrossInto, cos, cross, sin, unit, type Vec3, mapAxes, AXES } from '../../maths/index.ts';
import type { LocalPoint } from '../shapes/index.ts';

/** Straight pieces between two points of a drawn path, by which its length is measured. */
const PIECES = 16;

/** A drawn path, smooth through its points (Catmull and Rom, 1974), walked evenly by length. */
export class PathCurve {
  readonly #points: readonly Vec3[];
  readonly #closed: boolean;
  readonly #spans: number;
  /** Metres from the start at each sixteenth of each span. */
  readonly #lengths: Float64Array;

  constructor(points: readonly Vector[], closed: boolean, scale: number) {
    this.#points = points.map(([x, y, z]): Vec3 => [x * scale, y * scale, z * scale]);
    this.#closed = closed;
    this.#spans = closed ? points.length : points.length - 1;
    this.#lengths = new Float64Array(this.#spans * PIECES + 1);
    let before = this.#at(0, 0);
    for (let i = 1; i < this.#lengths.length; i++) {
      const here = this.#at(Math.floor((i - 1) / PIECES), (((i - 1) % PIECES) + 1) / PIECES);
      const [x, y, z] = [here[0] - before[0], here[1] - before[1], here[2] - before[2]];
      this.#lengths[i] = this.#lengths[i - 1]! + Math.sqrt(x * x + y * y + z * z);
      before = here;
    }
  }

  /** Metres from one end to the other. */
  get length(): number {
    return this.#lengths[this.#lengths.length - 1]!;
  }

  #point(i: number): Vec3 {
    const count = this.#points.length;
    return this.#points[this.#closed ? (i + count) % count : Math.max(0, Math.min(count - 1, i))]!;
  }

  #at(span: number, t: number): Vec3 {
    const [a, b, c, d] = [-1, 0, 1, 2].map((k) => this.#point(span + k)) as [Vec3, Vec3, Vec3, Vec3];
    return mapAxes(AXES, (axis) => {
      const [p, q, r, s] = [a[axis]!, b[axis]!, c[axis]!, d[axis]!];
      return 0.5 * (2 * q + t * (r - p + t * (2 * p - 5 * q + 4 * r - s + t * (3 * (q - r) + s - p))));
    });
  }

  /** Writes the point at a share `u` of the length; `turn` is a share of a full turn about the path. */
  pointInto(out: LocalPoint, u: number, turn: number): void {
    const wanted = u * this.length;
    let [low, high] = [0, this.#lengths.length - 2];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (this.#lengths[middle]! <= wanted) low = middle;
      else high = middle - 1;
    }
    const piece = this.#lengths[low + 1]! - this.#lengths[low]!;
    const span = Math.floor(low / PIECES);
    const [from, to] = [this.#at(span, (low % PIECES) / PIECES), this.#at(span, ((low % PIECES) + 1) / PIECES)];
    const t = piece > 0 ? (wanted - this.#lengths[low]!) / piece : 0;
    const along = unit([to[0] - from[0], to[1] - from[1], to[2] - from[2]], [0, 0, 1]);
    acrossInto(ASIDE, BESIDE, along);
    const x: Vec3 = [ASIDE[0]!, ASIDE[1]!, ASIDE[2]!];
    const y = cross(along, x);
    const [c, s] = [cos(2 * Math.PI * turn), sin(2 * Math.PI * turn)];
    for (let axis = 0; axis < 3; axis++) {
      out.at[axis] = from[axis]! + (to[axis]! - from[axis]!) * t;
      out.along[axis] = along[axis]!;
      out.out[axis] = out.normal[axis] = x[axis]! * c + y[axis]! * s;
    }
  }
}

/** Room for two directions across the path. */
const ASIDE = new Float64Array(3);
const BESIDE = new Float64Array(3);

export const curveOf = (points: readonly Vector[], closed: boolean, scale: number): PathCurve =>
  new PathCurve(points, closed, scale);
