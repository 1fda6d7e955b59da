import {
  cos,
  draw,
  length,
  levelInto,
  radians,
  sin,
  slotOf,
  subtract,
  unit,
  type Vec3,
  mapAxes,
  AXES,
} from '../../maths/index.ts';

const SLOT_ROUND = slotOf('flight/round');
const SLOT_ASIDE = slotOf('flight/aside');

/** Into how many pieces a way is cut to find its length. */
const PIECES = 64;

/** How something is thrown. */
export interface FlightShape {
  /** Metres a second along the way. */
  readonly speed: number;
  /** How far the way rises over the straight line, in metres. */
  readonly arc: number;
  /** How far it follows its target as that moves: 0 not at all, 1 all the way. */
  readonly homing: number;
  /** Degrees by which it may leave beside the straight line, to come back to it at the end. */
  readonly spread: number;
}

/**
 * A carrier that goes from a place to a target: a parabola over the straight line between them, and another to one side.
 * Where it is hangs on the time since it left and on where its target is, and on nothing else.
 */
export class Flight {
  readonly from: Vec3;
  readonly aim: Vec3;
  /** How long it takes, as long as its target stays. */
  readonly seconds: number;
  readonly #shape: FlightShape;
  /** How far the way bulges at its middle, metres of the world. */
  readonly #bulge: Vec3;

  /** `key` draws to which side it leaves, and how far. */
  constructor(shape: FlightShape, from: Vec3, aim: Vec3, key: number) {
    this.#shape = shape;
    this.from = from;
    this.aim = aim;
    const way = subtract(aim, from);
    const span = length(way);
    const angle = radians(Math.min(80, shape.spread * draw(key, SLOT_ASIDE)));
    const turn = 2 * Math.PI * draw(key, SLOT_ROUND);
    // A parabola that leaves at an angle bulges by a quarter of the span times its tangent.
    const aside = ((sin(angle) / cos(angle)) * span) / 4;
    const [level, upward] = [LEVEL, UPWARD];
    levelInto(level, upward, ...unit(way, AHEAD));
    this.#bulge = mapAxes(
      AXES,
      (axis) => aside * (cos(turn) * level[axis]! + sin(turn) * upward[axis]!) + (axis === 1 ? shape.arc : 0),
    );
    this.seconds = shape.speed > 0 ? this.#length() / shape.speed : Infinity;
  }

  #length(): number {
    const [a, b] = [new Float64Array(3), new Float64Array(3)];
    let sum = 0;
    for (let k = 0; k < PIECES; k++) {
      this.#pointInto(a, k / PIECES, this.aim);
      this.#pointInto(b, (k + 1) / PIECES, this.aim);
      const [x, y, z] = [b[0]! - a[0]!, b[1]! - a[1]!, b[2]! - a[2]!];
      sum += Math.sqrt(x * x + y * y + z * z);
    }
    return sum;
  }

  #pointInto(out: Float64Array, share: number, target: Vec3): void {
    const { homing } = this.#shape;
    const over = 4 * share * (1 - share);
    for (let axis = 0; axis < 3; axis++) {
      const end = this.aim[axis]! + (target[axis]! - this.aim[axis]!) * homing;
      out[axis] = this.from[axis]! + (end - this.from[axis]!) * share + this.#bulge[axis]! * over;
    }
  }

  /** Share of the way that is gone so many seconds after it left. */
  shareAt(seconds: number): number {
    if (this.seconds === 0) return 1;
    return Math.max(0, Math.min(1, seconds / this.seconds));
  }

  /** Writes where it is so many seconds after it left, while its target is at a place. */
  placeInto(out: Float64Array, seconds: number, target: Vec3 = this.aim): void {
    this.#pointInto(out, this.shareAt(seconds), target);
  }

  /** Writes the matrix of what rides on it: its Z leads on along the way, its Y up. */
  matrixInto(m: Float64Array, seconds: number, target: Vec3 = this.aim): void {
    const share = this.shareAt(seconds);
    const [a, b] = [NEAR_A, NEAR_B];
    this.#pointInto(a, Math.max(0, share - STEP), target);
    this.#pointInto(b, Math.min(1, share + STEP), target);
    const forward = unit([b[0]! - a[0]!, b[1]! - a[1]!, b[2]! - a[2]!], AHEAD);
    const [level, upward] = [LEVEL, UPWARD];
    levelInto(level, upward, ...forward);
    this.#pointInto(a, share, target);
    for (let axis = 0; axis < 3; axis++) {
      m[axis] = level[axis]!;
      m[4 + axis] = upward[axis]!;
      m[8 + axis] = forward[axis]!;
      m[12 + axis] = a[axis]!;
    }
    m[3] = m[7] = m[11] = 0;
    m[15] = 1;
  }
}

/** Share of a way before and after a point by which its direction is measured. */
const STEP = 1 / 1024;
const NEAR_A = new Float64Array(3);
const NEAR_B = new Float64Array(3);
/** Where something without a way looks. */
const AHEAD: Vec3 = [0, 0, 1];
const LEVEL = new Float64Array(3);
const UPWARD = new Float64Array(3);
