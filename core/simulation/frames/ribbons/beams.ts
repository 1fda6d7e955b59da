import { draw, hash2, levelInto, slotOf } from '../../../maths/index.ts';
import { ARRIVES, FROM, METRES, TO, type Curve } from './curve.ts';

/** The shape of a beam, in metres, strikes a second and counts. */
export interface BeamShape {
  readonly sag: number;
  readonly jag: number;
  readonly jagSize: number;
  readonly strikes: number;
  readonly branches: number;
  readonly branchLength: number;
}

/** A beam's two ends at the start and at the end of a step. */
export interface BeamEnds {
  readonly from: Float64Array;
  readonly to: Float64Array;
  readonly wasFrom: Float64Array;
  readonly wasTo: Float64Array;
}

const SLOT_ASIDE = slotOf('beam/aside');
const SLOT_UP = slotOf('beam/up');
const SLOT_WHERE = slotOf('beam/where');
const SLOT_LONG = slotOf('beam/long');

/** Fewest and most pieces of a beam: the first for its sag. */
const LEAST_PIECES = 16;
const MOST_PIECES = 96;

/** Writes the control points of beams: a sagging way between two ends, thrown aside by a draw at every jag. */
export class BeamWriter {
  readonly #sideways = new Float64Array(3);
  readonly #upward = new Float64Array(3);
  readonly #a = new Float64Array(3);
  readonly #b = new Float64Array(3);

  /** Writes the beam of one particle, as far as it has reached (0 to 1). */
  mainInto(curve: Curve, ends: BeamEnds, shape: BeamShape, key: number, seconds: number, reached: number): void {
    const strike = hash2(key, shape.strikes > 0 ? Math.floor(seconds * shape.strikes) : 0);
    this.#wayInto(curve, ends, shape, strike, reached);
  }

  /** Writes branch `n` of a beam; nothing where the beam has not reached it, or it has no length. */
  branchInto(
    curve: Curve,
    n: number,
    ends: BeamEnds,
    shape: BeamShape,
    key: number,
    seconds: number,
    reached: number,
  ): boolean {
    const strike = hash2(key, shape.strikes > 0 ? Math.floor(seconds * shape.strikes) : 0);
    const own = hash2(strike, 1000 + n);
    const where = 0.1 + 0.8 * draw(own, SLOT_WHERE);
    const length = shape.branchLength * (0.3 + 0.7 * draw(own, SLOT_LONG));
    if (where >= reached || !(length > 0)) return false;
    const span = distanceOf(ends.from, ends.to);
    acrossInto(this.#sideways, this.#upward, ends.from, ends.to);
    const [aside, up] = [2 * draw(own, SLOT_ASIDE) - 1, 2 * draw(own, SLOT_UP) - 1];
    const way = [0, 1, 2].map(
      (axis) =>
        (span > 0 ? (ends.to[axis]! - ends.from[axis]!) / span : 0) +
        aside * this.#sideways[axis]! +
        up * this.#upward[axis]!,
    );
    const size = Math.sqrt(way[0]! * way[0]! + way[1]! * way[1]! + way[2]! * way[2]!);
    if (!(size > 0)) return false;
    const make = (from: Float64Array, to: Float64Array): [Float64Array, Float64Array] => {
      const root = new Float64Array(3);
      this.#placeInto(root, from, to, shape, strike, where, piecesOf(distanceOf(from, to), shape));
      return [root, Float64Array.from(root, (x, axis) => x + (way[axis]! / size) * length)];
    };
    const [from, to] = make(ends.from, ends.to);
    const [wasFrom, wasTo] = make(ends.wasFrom, ends.wasTo);
    this.#wayInto(curve, { from, to, wasFrom, wasTo }, { ...shape, sag: 0, jag: shape.jag * 0.6 }, own, 1);
    return true;
  }

  #wayInto(curve: Curve, ends: BeamEnds, shape: BeamShape, strike: number, reached: number): void {
    curve.start();
    const span = distanceOf(ends.from, ends.to);
    const pieces = piecesOf(span, shape);
    const last = Math.ceil(reached * pieces);
    for (let k = 0; k <= last; k++) {
      const x = Math.min(k / pieces, reached);
      const at = curve.add();
      this.#placeInto(this.#a, ends.wasFrom, ends.wasTo, shape, strike, x, pieces);
      this.#placeInto(this.#b, ends.from, ends.to, shape, strike, x, pieces);
      for (let axis = 0; axis < 3; axis++) {
        curve.points[at + FROM + axis] = this.#a[axis]!;
        curve.points[at + TO + axis] = this.#b[axis]!;
      }
      curve.points[at + ARRIVES] = 1;
      curve.points[at + METRES] = x * span;
    }
  }

  /** Writes where a beam is at `x` of its length. */
  #placeInto(
    out: Float64Array,
    from: Float64Array,
    to: Float64Array,
    shape: BeamShape,
    strike: number,
    x: number,
    pieces: number,
  ): void {
    acrossInto(this.#sideways, this.#upward, from, to);
    // Jags grow from nothing at both ends; between two of them the way is straight.
    const k = Math.floor(x * pieces);
    const t = x * pieces - k;
    const jag = (n: number, slot: number) => {
      const end = Math.min(n, pieces - n) / Math.max(1, Math.min(4, pieces / 2));
      return n <= 0 || n >= pieces ? 0 : shape.jag * Math.min(1, end) * (2 * draw(hash2(strike, n), slot) - 1);
    };
    const aside = shape.jag > 0 ? jag(k, SLOT_ASIDE) * (1 - t) + jag(k + 1, SLOT_ASIDE) * t : 0;
    const up = shape.jag > 0 ? jag(k, SLOT_UP) * (1 - t) + jag(k + 1, SLOT_UP) * t : 0;
    for (let axis = 0; axis < 3; axis++)
      out[axis] =
        from[axis]! +
        (to[axis]! - from[axis]!) * x +
        this.#sideways[axis]! * aside +
        this.#upward[axis]! * up -
        (axis === 1 ? 4 * shape.sag * x * (1 - x) : 0);
  }
}

function piecesOf(span: number, { jag, jagSize }: BeamShape): number {
  const jags = jag > 0 ? Math.ceil(span / jagSize) : 0;
  return Math.max(jag > 0 ? 2 : LEAST_PIECES, Math.min(MOST_PIECES, jags));
}

export function distanceOf(a: Float64Array, b: Float64Array): number {
  const [x, y, z] = [a[0]! - b[0]!, a[1]! - b[1]!, a[2]! - b[2]!];
  return Math.sqrt(x * x + y * y + z * z);
}

/** Writes two directions at right angles to the way from one place to another. */
function acrossInto(sideways: Float64Array, upward: Float64Array, from: Float64Array, to: Float64Array): void {
  const span = distanceOf(from, to);
  const [x, y, z] = [0, 1, 2].map((axis) => (span > 0 ? (to[axis]! - from[axis]!) / span : axis === 0 ? 1 : 0)) as [
    number,
    number,
    number,
  ];
  levelInto(sideways, upward, x, y, z);
}
