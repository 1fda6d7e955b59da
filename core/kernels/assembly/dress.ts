import {
  BIRTH_FRACTION, BIRTH_STEP, FLAGS, FX, FY, FZ, IS_DEAD, KEY, LIFE, PX, PY, PZ, TINT_B, TINT_G, SCALE, TINT_R, WAS_HELD,
} from '../layout';
import { add, all, choose, div, draw, get, least, most, mul, one, sub, whole } from './lanes';

// The words of a dress are told in ../dress.ts.
// @ts-ignore: decorator
@inline function int(words: usize, n: i32): i32 { return load<i32>(words + (<usize>n << 2)); }
// @ts-ignore: decorator
@inline function num(words: usize, n: i32): f32 { return load<f32>(words + (<usize>n << 2)); }

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

// @ts-ignore: decorator
@inline function drawn(words: usize, base: usize, stride: usize, i: i32, n: i32): v128 {
  return int(words, n + 4) ? draw(base, stride, i, int(words, n)) : all(0);
}

/**
 * Writes the records of the living among `from` to `to`, one after another at `out`; returns how many. The dead are
 * written too, and then written over: one record behind the last may hold anything.
 */
export function dress(base: usize, stride: usize, from: i32, to: i32, words: usize, scratch: usize, out: usize): i32 {
  const start = out;
  const table = <usize>int(words, 0);
  const colours = <usize>int(words, 1);
  const colourCount = int(words, 2);
  const hasColours = colourCount != 1;
  const isTaken = colourCount == 0;
  const step = int(words, 4);
  const hasSpread = int(words, 8);
  const hasArrays = int(words, 9);
  const hasTurning = int(words, 10);
  const hasScales = int(words, 34);
  const isInLives = int(words, 35);
  for (let i = from; i < to; i += 4) {
    const seconds = all(num(words, 5));
    const steps = f32x4.convert_i32x4_s(i32x4.sub(whole(step), get(base, stride, BIRTH_STEP, i)));
    const fraction = get(base, stride, BIRTH_FRACTION, i);
    const lived = mul(most(sub(steps, fraction), all(0)), seconds);
    const life = get(base, stride, LIFE, i);
    const isStanding = f32x4.eq(life, all(0));
    const age = choose(all(num(words, 6)), least(div(lived, life), one()), isStanding);
    const at = mul(age, all(512));
    const floor = least(f32x4.floor(at), all(511));
    const index = i32x4.mul(i32x4.trunc_sat_f32x4_s(floor), whole(80));
    const isGone = v128.and(get(base, stride, FLAGS, i), whole(IS_DEAD));
    const o1 = out + <usize>(64 - (i32x4.extract_lane(isGone, 0) << 6));
    const o2 = o1 + <usize>(64 - (i32x4.extract_lane(isGone, 1) << 6));
    const o3 = o2 + <usize>(64 - (i32x4.extract_lane(isGone, 2) << 6));
    const isNew = i32x4.eq(v128.and(get(base, stride, FLAGS, i), whole(WAS_HELD)), whole(0));
    const birth = choose(fraction, all(0), v128.and(isNew, f32x4.eq(steps, one())));
    turned(get(base, stride, FX, i), get(base, stride, FY, i), get(base, stride, FZ, i), birth, out, o1, o2, o3);
    const angle = num(words, 12) == 0
      ? all(num(words, 11))
      : add(all(num(words, 11)), mul(draw(base, stride, i, int(words, 13)), all(num(words, 12))));
    turned(
      get(base, stride, PX, i), get(base, stride, PY, i), get(base, stride, PZ, i), angle, out + 16, o1 + 16, o2 + 16, o3 + 16,
    );
    const lot = f32x4.convert_i32x4_u(i32x4.shr_u(get(base, stride, KEY, i), 8));
    turned(all(0), age, lot, all(0), out + 48, o1 + 48, o2 + 48, o3 + 48);
    if (hasSpread) turned(
      drawn(words, base, stride, i, 14), drawn(words, base, stride, i, 15),
      drawn(words, base, stride, i, 16), drawn(words, base, stride, i, 17),
      scratch + 128, scratch + 144, scratch + 160, scratch + 176,
    );
    v128.store(scratch, isGone);
    v128.store(scratch + 192, index);
    v128.store(scratch + 208, sub(at, floor));
    if (hasTurning) {
      const lives = choose(all(num(words, 7)), life, isStanding);
      v128.store(scratch + 240, lives);
      v128.store(scratch + 256, choose(sub(lived, mul(age, lives)), all(0), isStanding));
    }
    if (isTaken) turned(
      get(base, stride, TINT_R, i), get(base, stride, TINT_G, i), get(base, stride, TINT_B, i), all(0),
      scratch + 288, scratch + 304, scratch + 320, scratch + 336,
    );
    else if (hasColours) v128.store(
      scratch + 272,
      i32x4.trunc_sat_f32x4_s(f32x4.floor(mul(draw(base, stride, i, int(words, 3)), all(<f32>colourCount)))),
    );
    const count = min(4, to - i);
    let o = out;
    for (let lane = 0; lane < count; lane++) {
      const l4 = <usize>lane << 2;
      if (load<i32>(scratch + l4)) continue;
      const l16 = <usize>lane << 4;
      const row = table + <usize>load<i32>(scratch + 192 + l4);
      const t = v128.load32_splat(scratch + 208 + l4);
      let numbers = between(row, 0, t);
      let shares = all(0);
      if (hasSpread) {
        shares = v128.load(scratch + 128 + l16);
        numbers = add(numbers, mul(shares, between(row, 16, t)));
      }
      numbers = most(least(numbers, v128.load(words + 112)), v128.load(words + 96));
      let colour: v128;
      if (hasColours) {
        const own = v128.load(isTaken ? scratch + 288 + l16 : colours + (<usize>load<i32>(scratch + 272 + l4) << 4));
        colour = add(mul(own, between(row, 48, t)), between(row, 64, t));
      } else colour = between(row, 32, t);
      if (hasTurning) {
        const u = f32x4.extract_lane(shares, 3);
        let rate = f32x4.extract_lane(between(row, 32, t), 3) + u * f32x4.extract_lane(between(row, 48, t), 3);
        let waited = (num(words, 32) + u * num(words, 33)) * load<f32>(scratch + 256 + l4);
        const lifeSeconds = load<f32>(scratch + 240 + l4);
        let swung = f32x4.extract_lane(numbers, 3);
        if (isInLives) {
          rate /= lifeSeconds;
          waited /= lifeSeconds;
        } else swung *= lifeSeconds;
        swung += waited;
        const word = <usize>(i + lane) << 2;
        if (hasArrays && int(words, 39)) {
          rate = load<f32>(<usize>int(words, 39) + word);
          swung = load<f32>(<usize>int(words, 40) + word);
        }
        store<f32>(o, load<f32>(o, 28) + swung, 28);
        store<f32>(o, rate * num(words, 5), 60);
      }
      if (hasArrays) {
        const word = <usize>(i + lane) << 2;
        if (int(words, 36)) numbers = f32x4.replace_lane(numbers, 0, load<f32>(<usize>int(words, 36) + word));
        if (int(words, 37)) numbers = f32x4.replace_lane(numbers, 1, load<f32>(<usize>int(words, 37) + word));
        if (int(words, 38)) numbers = f32x4.replace_lane(numbers, 2, load<f32>(<usize>int(words, 38) + word));
        if (int(words, 41)) {
          colour = f32x4.replace_lane(colour, 0, load<f32>(<usize>int(words, 41) + word));
          colour = f32x4.replace_lane(colour, 1, load<f32>(<usize>int(words, 42) + word));
          colour = f32x4.replace_lane(colour, 2, load<f32>(<usize>int(words, 43) + word));
        }
      }
      const glowing = mul(colour, v128.shuffle<f32>(numbers, numbers, 2, 2, 2, 2));
      v128.store(o, v128.shuffle<f32>(glowing, numbers, 0, 1, 2, 5), 32);
      let size = f32x4.extract_lane(numbers, 0);
      if (hasScales) size *= load<f32>(base + stride * SCALE + (<usize>(i + lane) << 2));
      store<f32>(o, size, 48);
      o += 64;
    }
    out = o;
  }
  return <i32>((out - start) >> 6);
}
