import {
  BIRTH_FRACTION, BIRTH_STEP, FLAGS, FX, FY, FZ, IS_DEAD, KEY, LIFE, PX, PY, PZ, TINT_B, TINT_G, SCALE, TINT_R, WAS_HELD,
} from '../layout';
import { add, all, choose, div, draw, get, least, most, mul, one, sub, whole } from './lanes';

// The words of a dress are told in ../dress.ts.
// @ts-ignore: decorator
@inline function int(words: usize, n: i32): i32 { return load<i32>(words + (<usize>n << 2)); }
// @ts-ignore: decorator
@inline function num(words: usize, n: i32): f32 { return load<f32>(words + (<usize>n << 2)); }

// Pieces of scratch memory for the four particles at hand, each four words or four vectors.
const SHARES: usize = 0;
const LIVES: usize = 64;
const WAITED: usize = 80;
const CHOSEN: usize = 96;
const TINTS: usize = 112;
const ROWS: usize = 176;
const PARTS: usize = 192;

// Constants of the loop, loaded rather than written in place (lanes.ts tells why).
const FLOATS = memory.data<f32>([512, 512, 512, 512, 511, 511, 511, 511, 8388608, 8388608, 8388608, 8388608], 16);
const WHOLES = memory.data<i32>([
  0x4b000000, 0x4b000000, 0x4b000000, 0x4b000000, 80, 80, 80, 80,
  IS_DEAD, IS_DEAD, IS_DEAD, IS_DEAD, 64, 64, 64, 64, WAS_HELD, WAS_HELD, WAS_HELD, WAS_HELD,
], 16);
const CELLS: usize = 0;
const LAST: usize = 16;
const MAGIC: usize = 32;
const MAGIC_BITS: usize = 0;
const ROW: usize = 16;
const DEAD: usize = 32;
const RECORD: usize = 48;
const HELD: usize = 64;

// @ts-ignore: decorator
@inline function float(at: usize): v128 { return v128.load(FLOATS + at); }
// @ts-ignore: decorator
@inline function integer(at: usize): v128 { return v128.load(WHOLES + at); }

/** Stores four vectors of four particles as four particles' vectors. */
// @ts-ignore: decorator
@inline function turned(a: v128, b: v128, c: v128, d: v128, o0: usize, o1: usize, o2: usize, o3: usize): void {
  const ab = v128.shuffle<f32>(a, b, 0, 4, 1, 5);
  const cd = v128.shuffle<f32>(c, d, 0, 4, 1, 5);
  const abHigh = v128.shuffle<f32>(a, b, 2, 6, 3, 7);
  const cdHigh = v128.shuffle<f32>(c, d, 2, 6, 3, 7);
  v128.store(o0, v128.shuffle<f32>(ab, cd, 0, 1, 4, 5));
  v128.store(o1, v128.shuffle<f32>(ab, cd, 2, 3, 6, 7));
  v128.store(o2, v128.shuffle<f32>(abHigh, cdHigh, 0, 1, 4, 5));
  v128.store(o3, v128.shuffle<f32>(abHigh, cdHigh, 2, 3, 6, 7));
}

// @ts-ignore: decorator
@inline function between(row: usize, at: usize, t: v128): v128 {
  const a = v128.load(row + at);
  return add(a, mul(sub(v128.load(row + at + 80), a), t));
}

/** The draw of four particles for a column, where it has a spread. */
// @ts-ignore: decorator
@inline function drawn(words: usize, base: usize, stride: usize, i: i32, column: i32): v128 {
  return int(words, 18 + column) ? draw(base, stride, i, int(words, 14 + column)) : all(0);
}

/** Completes the record at `o` of one of four particles, `i`; `isPlain`: there is nothing to it but a size and a colour by age. */
// @ts-ignore: decorator
@inline function complete(
  lane: usize, o: usize, i: i32, base: usize, stride: usize, words: usize, scratch: usize, hasSpread: i32, isPlain: bool,
): void {
  const row = <usize>int(words, 0) + load<usize>(scratch + ROWS + (lane << 2));
  const t = v128.load32_splat(scratch + PARTS + (lane << 2));
  let numbers = between(row, 0, t);
  let shares = all(0);
  if (hasSpread) {
    shares = v128.load(scratch + SHARES + (lane << 4));
    numbers = add(numbers, mul(shares, between(row, 16, t)));
  }
  numbers = most(least(numbers, v128.load(words + 112)), v128.load(words + 96));
  let colour: v128;
  if (isPlain) colour = between(row, 32, t);
  else {
    const word = <usize>i << 2;
    const hasArrays = int(words, 9);
    const colourCount = int(words, 2);
    if (colourCount != 1) {
      const own = colourCount == 0
        ? scratch + TINTS + (lane << 4)
        : <usize>int(words, 1) + (load<usize>(scratch + CHOSEN + (lane << 2)) << 4);
      colour = add(mul(v128.load(own), between(row, 48, t)), between(row, 64, t));
    } else colour = between(row, 32, t);
    if (int(words, 10)) {
      const u = f32x4.extract_lane(shares, 3);
      let rate = f32x4.extract_lane(between(row, 32, t), 3) + u * f32x4.extract_lane(between(row, 48, t), 3);
      let waited = (num(words, 32) + u * num(words, 33)) * load<f32>(scratch + WAITED + (lane << 2));
      const lifeSeconds = load<f32>(scratch + LIVES + (lane << 2));
      let swung = f32x4.extract_lane(numbers, 3);
      if (int(words, 35)) {
        rate /= lifeSeconds;
        waited /= lifeSeconds;
      } else swung *= lifeSeconds;
      swung += waited;
      if (hasArrays && int(words, 39)) {
        rate = load<f32>(<usize>int(words, 39) + word);
        swung = load<f32>(<usize>int(words, 40) + word);
      }
      store<f32>(o, load<f32>(o, 28) + swung, 28);
      store<f32>(o, rate * num(words, 5), 60);
    }
    if (hasArrays) {
      if (int(words, 36)) numbers = f32x4.replace_lane(numbers, 0, load<f32>(<usize>int(words, 36) + word));
      if (int(words, 37)) numbers = f32x4.replace_lane(numbers, 1, load<f32>(<usize>int(words, 37) + word));
      if (int(words, 38)) numbers = f32x4.replace_lane(numbers, 2, load<f32>(<usize>int(words, 38) + word));
      if (int(words, 41)) {
        colour = f32x4.replace_lane(colour, 0, load<f32>(<usize>int(words, 41) + word));
        colour = f32x4.replace_lane(colour, 1, load<f32>(<usize>int(words, 42) + word));
        colour = f32x4.replace_lane(colour, 2, load<f32>(<usize>int(words, 43) + word));
      }
    }
    if (int(words, 34)) numbers = f32x4.replace_lane(
      numbers, 0, f32x4.extract_lane(numbers, 0) * load<f32>(base + stride * SCALE + word),
    );
  }
  const glowing = mul(colour, v128.shuffle<f32>(numbers, numbers, 2, 2, 2, 2));
  v128.store(o, v128.shuffle<f32>(glowing, numbers, 0, 1, 2, 5), 32);
  store<f32>(o, f32x4.extract_lane(numbers, 0), 48);
}

/**
 * Writes the records of the living among `from` to `to`, one after another at `out`; returns how many. The dead are
 * written too, and then written over: one record behind the last may hold anything.
 */
export function dress(base: usize, stride: usize, from: i32, to: i32, words: usize, scratch: usize, out: usize): i32 {
  const colourCount = int(words, 2);
  const hasSpread = int(words, 8);
  const isPlain = colourCount == 1 && !(int(words, 9) | int(words, 10) | int(words, 34));
  const start = out;
  for (let i = from; i < to; i += 4) {
    const steps = f32x4.convert_i32x4_s(i32x4.sub(whole(int(words, 4)), get(base, stride, BIRTH_STEP, i)));
    const fraction = get(base, stride, BIRTH_FRACTION, i);
    const lived = mul(most(sub(steps, fraction), all(0)), all(num(words, 5)));
    const life = get(base, stride, LIFE, i);
    const isStanding = f32x4.eq(life, all(0));
    const age = choose(all(num(words, 6)), least(div(lived, life), one()), isStanding);
    const at = mul(age, float(CELLS));
    const floor = least(float(LAST), f32x4.floor(at));
    // A float of 2²³ and a small whole number has that number in its lowest bits: quicker than converting it.
    const rows = i32x4.mul(i32x4.sub(add(floor, float(MAGIC)), integer(MAGIC_BITS)), integer(ROW));
    const share = sub(at, floor);
    v128.store(scratch + ROWS, rows);
    v128.store(scratch + PARTS, share);
    const flags = get(base, stride, FLAGS, i);
    // Bytes that each record takes: none where the particle is dead, or behind the last.
    let isGone = i32x4.eq(v128.and(flags, integer(DEAD)), integer(DEAD));
    if (i + 4 > to) isGone = v128.or(isGone, i32x4.ge_s(i32x4.add(whole(i), i32x4(0, 1, 2, 3)), whole(to)));
    const bytes = v128.andnot(integer(RECORD), isGone);
    const o0 = out;
    const o1 = o0 + <usize>i32x4.extract_lane(bytes, 0);
    const o2 = o1 + <usize>i32x4.extract_lane(bytes, 1);
    const o3 = o2 + <usize>i32x4.extract_lane(bytes, 2);
    out = o3 + <usize>i32x4.extract_lane(bytes, 3);
    const isNew = i32x4.eq(v128.and(flags, integer(HELD)), whole(0));
    const birth = choose(fraction, all(0), v128.and(isNew, f32x4.eq(steps, one())));
    const angle = num(words, 12) == 0
      ? all(num(words, 11))
      : add(all(num(words, 11)), mul(draw(base, stride, i, int(words, 13)), all(num(words, 12))));
    if (hasSpread) turned(
      drawn(words, base, stride, i, 0), drawn(words, base, stride, i, 1),
      drawn(words, base, stride, i, 2), drawn(words, base, stride, i, 3),
      scratch + SHARES, scratch + SHARES + 16, scratch + SHARES + 32, scratch + SHARES + 48,
    );
    if (int(words, 10)) {
      const lives = choose(all(num(words, 7)), life, isStanding);
      v128.store(scratch + LIVES, lives);
      v128.store(scratch + WAITED, choose(sub(lived, mul(age, lives)), all(0), isStanding));
    }
    if (colourCount == 0) turned(
      get(base, stride, TINT_R, i), get(base, stride, TINT_G, i), get(base, stride, TINT_B, i), all(0),
      scratch + TINTS, scratch + TINTS + 16, scratch + TINTS + 32, scratch + TINTS + 48,
    );
    else if (colourCount != 1) v128.store(
      scratch + CHOSEN,
      i32x4.trunc_sat_f32x4_s(f32x4.floor(mul(draw(base, stride, i, int(words, 3)), all(<f32>colourCount)))),
    );
    const lot = f32x4.convert_i32x4_s(i32x4.shr_u(get(base, stride, KEY, i), 8));
    turned(get(base, stride, FX, i), get(base, stride, FY, i), get(base, stride, FZ, i), birth, o0, o1, o2, o3);
    turned(
      get(base, stride, PX, i), get(base, stride, PY, i), get(base, stride, PZ, i), angle, o0 + 16, o1 + 16, o2 + 16, o3 + 16,
    );
    turned(all(0), age, lot, all(0), o0 + 48, o1 + 48, o2 + 48, o3 + 48);
    if (o1 != o0) complete(0, o0, i, base, stride, words, scratch, hasSpread, isPlain);
    if (o2 != o1) complete(1, o1, i + 1, base, stride, words, scratch, hasSpread, isPlain);
    if (o3 != o2) complete(2, o2, i + 2, base, stride, words, scratch, hasSpread, isPlain);
    if (out != o3) complete(3, o3, i + 3, base, stride, words, scratch, hasSpread, isPlain);
  }
  return <i32>((out - start) >> 6);
}
