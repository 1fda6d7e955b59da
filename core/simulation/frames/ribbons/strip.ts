import {
  JOINT_AGE,
  JOINT_ALONG,
  JOINT_ARRIVES,
  JOINT_BEND,
  JOINT_COLOUR,
  JOINT_ENDS,
  JOINT_FROM,
  JOINT_IS_FIXED,
  JOINT_LENGTH,
  JOINT_LOT,
  JOINT_METRES,
  JOINT_OPACITY,
  JOINT_OWN,
  JOINT_SIDE,
  JOINT_TANGENT,
  JOINT_TO,
  JOINT_WIDTH,
  JOINT_WORDS,
  OWN_WORDS,
} from '../frame.ts';
import {
  AGE,
  ARRIVES,
  COLOUR,
  distance,
  FROM,
  IS_FIXED,
  LOT,
  METRES,
  OPACITY,
  OWN,
  POINT_WORDS,
  SIDE,
  TO,
  WIDTH,
  type Curve,
} from './curve.ts';

/** Share of a piece's length that a joint's inner side may take up: two joints together leave some of it. */
const INNER_SHARE = 0.45;

/** Share of a piece's length by which its inner side may be set back where it becomes wider or narrower. */
const SET_BACK = 0.09;

/** Writes curves as the joints of a frame: which way each goes, how it lies across, and how wide it may be inside a bend. */
export class Strip {
  readonly #side = new Float64Array(3);
  readonly #way = new Float64Array(3);
  readonly #next = new Float64Array(3);

  /** Writes a curve's joints from word `at` on, as long as there is room for all; returns how many. */
  write(out: Float32Array, at: number, room: number, curve: Curve): number {
    const { joints, jointCount } = curve;
    if (jointCount < 2 || jointCount > room) return 0;
    const first = joints[METRES]!;
    const span = joints[(jointCount - 1) * POINT_WORDS + METRES]! - first;
    this.#side.fill(0);
    for (let n = 0; n < jointCount; n++) {
      const j = n * POINT_WORDS;
      const o = at + n * JOINT_WORDS;
      for (let axis = 0; axis < 3; axis++) {
        out[o + JOINT_FROM + axis] = joints[j + FROM + axis]!;
        out[o + JOINT_TO + axis] = joints[j + TO + axis]!;
        out[o + JOINT_COLOUR + axis] = joints[j + COLOUR + axis]!;
      }
      out[o + JOINT_ARRIVES] = joints[j + ARRIVES]!;
      out[o + JOINT_METRES] = joints[j + METRES]!;
      out[o + JOINT_OPACITY] = joints[j + OPACITY]!;
      const along = span > 0 ? (joints[j + METRES]! - first) / span : n / (jointCount - 1);
      out[o + JOINT_WIDTH] = joints[j + WIDTH]!;
      out[o + JOINT_ENDS] = n === jointCount - 1 ? 1 : 0;
      out[o + JOINT_AGE] = joints[j + AGE]!;
      out[o + JOINT_ALONG] = along;
      out[o + JOINT_IS_FIXED] = joints[j + IS_FIXED]!;
      out[o + JOINT_LOT] = joints[j + LOT]!;
      out[o + JOINT_LENGTH] = span;
      for (let word = 0; word < OWN_WORDS; word++) out[o + JOINT_OWN + word] = joints[j + OWN + word]!;
      this.#shape(out, o, joints, n, jointCount);
    }
    for (let n = 1; n < jointCount; n++) this.#even(out, at + n * JOINT_WORDS, at + (n - 1) * JOINT_WORDS);
    for (let n = jointCount - 2; n >= 0; n--) this.#even(out, at + n * JOINT_WORDS, at + (n + 1) * JOINT_WORDS);
    return jointCount;
  }

  /** Lets the inside of a bend become wider only so fast from one joint to the next that no triangle turns over. */
  #even(out: Float32Array, o: number, from: number): void {
    let [own, other, both, length, turn] = [0, 0, 0, 0, 0];
    for (let axis = 0; axis < 3; axis++) {
      const [a, b] = [out[o + JOINT_BEND + axis]!, out[from + JOINT_BEND + axis]!];
      own += a * a;
      other += b * b;
      both += a * b;
      const way = out[o + JOINT_TO + axis]! - out[from + JOINT_TO + axis]!;
      length += way * way;
      const apart = out[o + JOINT_TANGENT + axis]! - out[from + JOINT_TANGENT + axis]!;
      turn += apart * apart;
    }
    if (other === 0 || both < 0) return;
    own = Math.sqrt(own);
    other = Math.sqrt(other);
    const most = 1 / other + (SET_BACK * Math.sqrt(length)) / Math.max(0.05, Math.sqrt(turn));
    if (own * most >= 1) return;
    // A joint without a bend of its own takes over which way its neighbour's goes.
    const direction = own > 0 ? o : from;
    const size = own > 0 ? own : other;
    for (let axis = 0; axis < 3; axis++)
      out[o + JOINT_BEND + axis] = out[direction + JOINT_BEND + axis]! / size / most;
  }

  /** Writes the direction, the side and the bend of joint `n`. */
  #shape(out: Float32Array, o: number, joints: Float64Array, n: number, count: number): void {
    const j = n * POINT_WORDS;
    const [way, next] = [this.#way, this.#next];
    const before = n > 0 ? directionInto(way, joints, j - POINT_WORDS, j) : 0;
    const after = n < count - 1 ? directionInto(next, joints, j, j + POINT_WORDS) : 0;
    if (before === 0) way.set(next);
    if (after === 0) next.set(way);
    let [turn, sum] = [0, 0];
    for (let axis = 0; axis < 3; axis++) {
      turn += (next[axis]! - way[axis]!) * (next[axis]! - way[axis]!);
      sum += (next[axis]! + way[axis]!) * (next[axis]! + way[axis]!);
    }
    turn = Math.sqrt(turn);
    sum = Math.sqrt(sum);
    const length = Math.min(before === 0 ? after : before, after === 0 ? before : after);
    // Tangent of half the angle between the two, over the length that it may take up.
    const bend = length > 0 && sum > 1e-6 ? turn / sum / (INNER_SHARE * length) : 0;
    for (let axis = 0; axis < 3; axis++) {
      const inward = turn > 1e-9 ? (next[axis]! - way[axis]!) / turn : 0;
      out[o + JOINT_BEND + axis] = inward * bend;
      way[axis] = sum > 1e-6 ? (next[axis]! + way[axis]!) / sum : way[axis]!;
      out[o + JOINT_TANGENT + axis] = way[axis]!;
    }
    if (joints[j + IS_FIXED]! > 0.5) {
      for (let axis = 0; axis < 3; axis++) this.#side[axis] = joints[j + SIDE + axis]!;
      unitInto(this.#side);
    } else this.#carrySide(way);
    for (let axis = 0; axis < 3; axis++) out[o + JOINT_SIDE + axis] = this.#side[axis]!;
  }

  /** Carries the side along by the least turn; the first lies level. */
  #carrySide([x, y, z]: Float64Array): void {
    const side = this.#side;
    const dot = side[0]! * x! + side[1]! * y! + side[2]! * z!;
    side[0]! -= dot * x!;
    side[1]! -= dot * y!;
    side[2]! -= dot * z!;
    if (unitInto(side) > 1e-6) return;
    // Level: across the way and the vertical; where the way is upright, along X.
    side[0] = z!;
    side[1] = 0;
    side[2] = -x!;
    if (unitInto(side) <= 1e-6) side.set(ALONG_X);
  }
}

const ALONG_X = [1, 0, 0];

/** Writes the direction from one joint to another; returns their distance, 0 where they are one. */
function directionInto(out: Float64Array, joints: Float64Array, a: number, b: number): number {
  const size = distance(joints, b, a, TO);
  for (let axis = 0; axis < 3; axis++)
    out[axis] = size > 0 ? (joints[b + TO + axis]! - joints[a + TO + axis]!) / size : 0;
  return size;
}

/** Brings a direction to length 1; returns the length it had. */
function unitInto(v: Float64Array): number {
  const size = Math.sqrt(v[0]! * v[0]! + v[1]! * v[1]! + v[2]! * v[2]!);
  if (size > 0) for (let axis = 0; axis < 3; axis++) v[axis]! /= size;
  return size;
}

/**
 * Writes the two edges of a joint (x, y, z each) when it lies across `side`: its half width, but on the inside of a bend
 * no more than the bend leaves room for. The stage's shader does the same.
 */
export function edgesInto(
  left: Float64Array,
  right: Float64Array,
  f32: Float32Array,
  o: number,
  side: ArrayLike<number>,
): void {
  const width = f32[o + JOINT_WIDTH]!;
  let inward = 0;
  for (let axis = 0; axis < 3; axis++) inward += side[axis]! * f32[o + JOINT_BEND + axis]!;
  const most = Math.abs(inward) > 1e-9 ? Math.min(width, 1 / Math.abs(inward)) : width;
  const [plus, minus] = inward > 0 ? [most, width] : [width, most];
  for (let axis = 0; axis < 3; axis++) {
    left[axis] = f32[o + JOINT_TO + axis]! + side[axis]! * plus;
    right[axis] = f32[o + JOINT_TO + axis]! - side[axis]! * minus;
  }
}
