import { grown } from '../../values/grown.ts';
import {
  OWN_WORDS,
  RECORD_LOT,
  RECORD_AGE,
  RECORD_COLOUR,
  RECORD_FROM,
  RECORD_OPACITY,
  RECORD_SIZE,
  RECORD_TO,
  RECORD_WORDS,
} from '../frame.ts';

/** Words of a control point of a ribbon. */
export const FROM = 0;
export const TO = 3;
export const ARRIVES = 6;
export const METRES = 7;
export const COLOUR = 8;
export const OPACITY = 11;
/** Half the width, metres. */
export const WIDTH = 12;
export const AGE = 13;
export const SIDE = 14;
/** 1 where SIDE is how the ribbon lies. */
export const IS_FIXED = 17;
export const LOT = 18;
/** Numbers of the look that differ. */
export const OWN = 19;
export const POINT_WORDS = OWN + OWN_WORDS;

/** Records of a layer's living particles, or laid points, and the numbers of their look that differ. */
export interface Records {
  readonly records: Float32Array;
  readonly own: Float32Array;
}

/** A piece of a curve may turn by so much, as the distance of its two directions of length 1 (about 6°). */
const MOST_TURN = 0.1;
const MOST_PIECES = 12;

/** Nearer than this two points are one, metres. */
const NEAR = 1e-6;

/**
 * Control points of one ribbon, and the smooth curve through them: centripetal Catmull-Rom (Yuksel et al., 2011), which
 * makes no loops of its own, cut into pieces where it turns.
 */
export class Curve {
  /** Control points, from the tail to the head. */
  points = new Float64Array(POINT_WORDS * 64);
  count = 0;
  /** What the curve was cut into, in the same words. */
  joints = new Float64Array(POINT_WORDS * 256);
  jointCount = 0;
  /** How finely it is cut; 1 is as finely as it is meant to be. */
  fineness = 1;

  start(): void {
    this.count = 0;
  }

  /** A new control point at the head's end, to be filled: the word at which it begins. */
  add(): number {
    const at = this.count++ * POINT_WORDS;
    if (at + POINT_WORDS > this.points.length) this.points = grown(this.points);
    this.points.fill(0, at, at + POINT_WORDS);
    this.points[at + ARRIVES] = 1;
    return at;
  }

  /** A new control point as a particle's record shows it, with the numbers of its look that differ. */
  addRecord({ records, own }: Records, record: number): number {
    const at = this.add();
    const from = record * RECORD_WORDS;
    const { points } = this;
    for (let axis = 0; axis < 3; axis++) {
      points[at + FROM + axis] = records[from + RECORD_FROM + axis]!;
      points[at + TO + axis] = records[from + RECORD_TO + axis]!;
      points[at + COLOUR + axis] = records[from + RECORD_COLOUR + axis]!;
    }
    points[at + OPACITY] = records[from + RECORD_OPACITY]!;
    points[at + WIDTH] = records[from + RECORD_SIZE]! / 2;
    points[at + AGE] = records[from + RECORD_AGE]!;
    points[at + LOT] = records[from + RECORD_LOT]!;
    for (let n = 0; n < OWN_WORDS; n++) points[at + OWN + n] = own[record * OWN_WORDS + n]!;
    return at;
  }

  /** Leaves out control points that lie upon one another, but for the first and the last. */
  #tidy(): void {
    const { points } = this;
    let kept = 0;
    for (let n = 0; n < this.count; n++) {
      const isLast = n === this.count - 1;
      if (kept > 0 && distance(points, n * POINT_WORDS, (kept - 1) * POINT_WORDS, TO) < NEAR) {
        if (!isLast || kept === 1) continue;
        kept--;
      }
      if (kept !== n) points.copyWithin(kept * POINT_WORDS, n * POINT_WORDS, (n + 1) * POINT_WORDS);
      kept++;
    }
    this.count = kept;
  }

  /** Cuts the curve into joints; with `isSmooth` off, every control point is one. Fewer than two points make none. */
  cut(isSmooth = true): void {
    this.#tidy();
    this.jointCount = 0;
    if (this.count < 2) return;
    for (let n = 0; n + 1 < this.count; n++) {
      const pieces = isSmooth ? this.#piecesOf(n) : 1;
      for (let k = 0; k < pieces; k++) this.#put(n, k / pieces);
    }
    this.#put(this.count - 2, 1);
  }

  /** Into how many pieces the way from point `n` to the next is cut. */
  #piecesOf(n: number): number {
    const turn = Math.max(this.#turnAt(n), this.#turnAt(n + 1));
    return Math.max(1, Math.min(MOST_PIECES, Math.ceil((turn / MOST_TURN) * this.fineness)));
  }

  /** How far the way turns at a point: the distance of the directions before and after it. */
  #turnAt(n: number): number {
    if (n < 1 || n + 1 >= this.count) return 0;
    const { points } = this;
    const [a, b, c] = [(n - 1) * POINT_WORDS + TO, n * POINT_WORDS + TO, (n + 1) * POINT_WORDS + TO];
    const before = distance(points, b, a, 0);
    const after = distance(points, c, b, 0);
    if (before < NEAR || after < NEAR) return 0;
    let sum = 0;
    for (let axis = 0; axis < 3; axis++) {
      const apart =
        (points[c + axis]! - points[b + axis]!) / after - (points[b + axis]! - points[a + axis]!) / before;
      sum += apart * apart;
    }
    return Math.sqrt(sum);
  }

  #put(n: number, t: number): void {
    const at = this.jointCount++ * POINT_WORDS;
    if (at + POINT_WORDS > this.joints.length) this.joints = grown(this.joints);
    const { points, joints } = this;
    const [p, q] = [n * POINT_WORDS, (n + 1) * POINT_WORDS];
    for (let word = ARRIVES; word < POINT_WORDS; word++)
      joints[at + word] = points[p + word]! + (points[q + word]! - points[p + word]!) * t;
    for (const place of [FROM, TO]) this.#placeInto(at + place, n, t, place);
  }

  /** Writes where the curve is at `t` of the way from point `n` to the next; `place` is FROM or TO. */
  #placeInto(at: number, n: number, t: number, place: number): void {
    const { points, joints, count } = this;
    const b = n * POINT_WORDS + place;
    const c = b + POINT_WORDS;
    if (t === 0 || t === 1) {
      for (let axis = 0; axis < 3; axis++) joints[at + axis] = points[(t === 0 ? b : c) + axis]!;
      return;
    }
    const a = n > 0 ? b - POINT_WORDS : b;
    const d = n + 2 < count ? c + POINT_WORDS : c;
    const step = Math.sqrt(distance(points, b, c, 0));
    const before = n > 0 ? Math.sqrt(distance(points, a, b, 0)) : step;
    const after = n + 2 < count ? Math.sqrt(distance(points, c, d, 0)) : step;
    const t2 = t * t;
    const t3 = t2 * t;
    for (let axis = 0; axis < 3; axis++) {
      const [pb, pc] = [points[b + axis]!, points[c + axis]!];
      // Beyond an end the curve goes on as it came.
      const pa = n > 0 ? points[a + axis]! : 2 * pb - pc;
      const pd = n + 2 < count ? points[d + axis]! : 2 * pc - pb;
      const along = (pc - pb) / step;
      const into = before > NEAR ? (pb - pa) / before - (pc - pa) / (before + step) + along : along;
      const out = after > NEAR ? along - (pd - pb) / (step + after) + (pd - pc) / after : along;
      joints[at + axis] =
        step > NEAR
          ? (2 * t3 - 3 * t2 + 1) * pb +
            (t3 - 2 * t2 + t) * step * into +
            (3 * t2 - 2 * t3) * pc +
            (t3 - t2) * step * out
          : pb + (pc - pb) * t;
    }
  }
}

/** Metres between the places at two words, both moved on by `place`. */
export function distance(words: Float64Array, a: number, b: number, place: number): number {
  const x = words[a + place]! - words[b + place]!;
  const y = words[a + place + 1]! - words[b + place + 1]!;
  const z = words[a + place + 2]! - words[b + place + 2]!;
  return Math.sqrt(x * x + y * y + z * z);
}
