import {
  BIRTH_FRACTION, BIRTH_STEP, FLAGS, FX, FY, FZ, IS_DEAD, LIFE, NUMBER, PX, PY, PZ,
} from '../layout';
import { add, all, choose, div, draw, get, least, most, mul, one, sub, whole } from './lanes';

// The words of a dress are told in ../dress.ts.
let words: usize = 0;
// @ts-ignore: decorator
@inline function int(n: i32): i32 { return load<i32>(words + (<usize>n << 2)); }
// @ts-ignore: decorator
@inline function num(n: i32): f32 { return load<f32>(words + (<usize>n << 2)); }

/** The base of a setting: a spread drawn per particle. Words: low, width, slot. */
// @ts-ignore: decorator
@inline function own(base: usize, stride: usize, i: i32, n: i32): v128 {
  if (num(n + 1) == 0) return all(num(n));
  return add(all(num(n)), mul(draw(base, stride, i, int(n + 2)), all(num(n + 1))));
}

/** Four vectors of four particles become four particles' vectors of four; `turned` returns them one at a time. */
// @ts-ignore: decorator
@inline function turned(a: v128, b: v128, c: v128, d: v128, out: usize): void {
  const ab = v128.shuffle<f32>(a, b, 0, 4, 1, 5);
  const cd = v128.shuffle<f32>(c, d, 0, 4, 1, 5);
  const abHigh = v128.shuffle<f32>(a, b, 2, 6, 3, 7);
  const cdHigh = v128.shuffle<f32>(c, d, 2, 6, 3, 7);
  v128.store(out, v128.shuffle<f32>(ab, cd, 0, 1, 4, 5));
  v128.store(out, v128.shuffle<f32>(ab, cd, 2, 3, 6, 7), 16);
  v128.store(out, v128.shuffle<f32>(abHigh, cdHigh, 0, 1, 4, 5), 32);
  v128.store(out, v128.shuffle<f32>(abHigh, cdHigh, 2, 3, 6, 7), 48);
}

// @ts-ignore: decorator
@inline function between(row: usize, at: usize, t: v128): v128 {
  const a = v128.load(row + at);
  return add(a, mul(sub(v128.load(row + at + 64), a), t));
}

/** Writes the records of the living among `from` to `to`, one after another at `out`; returns how many. */
export function dress(base: usize, stride: usize, from: i32, to: i32, settings: usize, scratch: usize, out: usize): i32 {
  words = settings;
  const table = <usize>int(0);
  const colours = <usize>int(1);
  const colourCount = <f32>int(2);
  const step = int(4);
  const seconds = all(num(5));
  const standing = all(num(6));
  const lowest = v128.load(words + 96);
  const highest = v128.load(words + 112);
  const scale = v128.load(words + 128);
  let written = 0;
  for (let i = from; i < to; i += 4) {
    const steps = f32x4.convert_i32x4_s(i32x4.sub(whole(step), get(base, stride, BIRTH_STEP, i)));
    const lived = mul(most(sub(steps, get(base, stride, BIRTH_FRACTION, i)), all(0)), seconds);
    const life = get(base, stride, LIFE, i);
    const isStanding = f32x4.eq(life, all(0));
    const age = choose(standing, least(div(lived, life), one()), isStanding);
    const lifeSeconds = choose(all(num(7)), life, isStanding);
    const at = mul(age, all(512));
    const floor = least(f32x4.floor(at), all(511));
    const birth = choose(get(base, stride, BIRTH_FRACTION, i), all(0), f32x4.eq(steps, one()));
    const start = own(base, stride, i, 8);
    turned(get(base, stride, FX, i), get(base, stride, FY, i), get(base, stride, FZ, i), birth, scratch);
    turned(get(base, stride, PX, i), get(base, stride, PY, i), get(base, stride, PZ, i), start, scratch + 64);
    turned(own(base, stride, i, 11), own(base, stride, i, 14), own(base, stride, i, 17), own(base, stride, i, 20), scratch + 128);
    v128.store(scratch + 192, i32x4.trunc_sat_f32x4_s(floor));
    v128.store(scratch + 208, sub(at, floor));
    v128.store(scratch + 224, age);
    v128.store(scratch + 240, lifeSeconds);
    v128.store(scratch + 272, choose(sub(lived, mul(age, lifeSeconds)), all(0), isStanding));
    const chosen = colourCount > 1 ? f32x4.floor(mul(draw(base, stride, i, int(3)), all(colourCount))) : all(0);
    v128.store(scratch + 256, i32x4.trunc_sat_f32x4_s(chosen));
    const count = min(4, to - i);
    for (let lane = 0; lane < count; lane++) {
      const particle = i + lane;
      const word = <usize>particle << 2;
      if (load<i32>(base + <usize>FLAGS * stride + word) & IS_DEAD) continue;
      const l4 = <usize>lane << 2;
      const l16 = <usize>lane << 4;
      const row = table + (<usize>load<i32>(scratch + 192 + l4) << 6);
      const t = all(load<f32>(scratch + 208 + l4));
      const own4 = v128.load(scratch + 128 + l16);
      let numbers = add(mul(own4, between(row, 0, t)), between(row, 16, t));
      numbers = mul(most(least(numbers, highest), lowest), scale);
      const colour0 = v128.load(colours + (<usize>load<i32>(scratch + 256 + l4) << 4));
      const turning = f32x4.splat(f32x4.extract_lane(own4, 3));
      const base4 = v128.shuffle<f32>(colour0, turning, 0, 1, 2, 7);
      let colour = add(mul(base4, between(row, 32, t)), between(row, 48, t));
      let size = f32x4.extract_lane(numbers, 0);
      let opacity = f32x4.extract_lane(numbers, 1);
      let intensity = f32x4.extract_lane(numbers, 2);
      const waiting = (f32x4.extract_lane(own4, 3) * num(44) + num(45)) * load<f32>(scratch + 272 + l4);
      let swung = f32x4.extract_lane(numbers, 3) * load<f32>(scratch + 240 + l4) + waiting;
      let rate = f32x4.extract_lane(colour, 3);
      if (int(36)) size = load<f32>(<usize>int(36) + word);
      if (int(37)) opacity = load<f32>(<usize>int(37) + word);
      if (int(38)) intensity = load<f32>(<usize>int(38) + word);
      if (int(39)) {
        rate = load<f32>(<usize>int(39) + word);
        swung = load<f32>(<usize>int(40) + word);
      }
      if (int(41)) colour = f32x4.replace_lane(f32x4.replace_lane(f32x4.replace_lane(
        colour, 0, load<f32>(<usize>int(41) + word)), 1, load<f32>(<usize>int(42) + word)), 2, load<f32>(<usize>int(43) + word));
      v128.store(out, v128.load(scratch + l16));
      const to4 = v128.load(scratch + 64 + l16);
      v128.store(out, f32x4.replace_lane(to4, 3, f32x4.extract_lane(to4, 3) + swung), 16);
      v128.store(out, f32x4.replace_lane(mul(colour, all(intensity)), 3, opacity), 32);
      store<f32>(out, size, 48);
      store<f32>(out, load<f32>(scratch + 224 + l4), 52);
      store<i32>(out, load<i32>(base + <usize>NUMBER * stride + word), 56);
      store<f32>(out, rate * num(5), 60);
      out += 64;
      written++;
    }
  }
  return written;
}
