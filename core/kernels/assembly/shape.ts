import { BIRTH_FRACTION, BIRTH_STEP, LIFE } from '../layout';
import { add, all, choose, div, draw, get, least, most, mul, one, root, speedSquared, sub, whole } from './lanes';

/** Age 0 to 1 at the start of a step; `standing` for what lives as long as the effect does. */
// @ts-ignore: decorator
@inline export function ageAt(base: usize, stride: usize, i: i32, step: i32, seconds: v128, standing: v128): v128 {
  const steps = f32x4.convert_i32x4_s(i32x4.sub(whole(step), get(base, stride, BIRTH_STEP, i)));
  const lived = mul(most(sub(steps, get(base, stride, BIRTH_FRACTION, i)), all(0)), seconds);
  const life = get(base, stride, LIFE, i);
  return choose(standing, least(div(lived, life), one()), f32x4.eq(life, all(0)));
}

/** Two pairs of a table, of two particles. */
// @ts-ignore: decorator
@inline function pairs(first: usize, second: usize): v128 {
  return v128.load_lane<u64>(second, v128.load64_zero(first), 1);
}

/**
 * Writes a setting of four particles at a time: base × M(x) + A(x), held to its limits, by a table of 513 pairs M, A
 * over x = age or speed × `scaleX`, between which it is linear.
 */
export function shape(
  base: usize, stride: usize, from: i32, to: i32, out: usize, table: usize, bySpeed: i32, scaleX: f32,
  low: f32, width: f32, slot: i32, lowest: f32, highest: f32, scale: f32, step: i32, seconds: f32, standing: f32,
): void {
  for (let i = from; i < to; i += 4) {
    const x = bySpeed
      ? mul(root(speedSquared(base, stride, i)), all(scaleX))
      : ageAt(base, stride, i, step, all(seconds), all(standing));
    const at = mul(least(x, one()), all(512));
    const floor = least(f32x4.floor(at), all(511));
    const t = sub(at, floor);
    const index = i32x4.shl(i32x4.trunc_sat_f32x4_s(floor), 3);
    const a = table + <usize>i32x4.extract_lane(index, 0);
    const b = table + <usize>i32x4.extract_lane(index, 1);
    const c = table + <usize>i32x4.extract_lane(index, 2);
    const d = table + <usize>i32x4.extract_lane(index, 3);
    const ab = pairs(a, b);
    const cd = pairs(c, d);
    const abNext = pairs(a + 8, b + 8);
    const cdNext = pairs(c + 8, d + 8);
    const m = v128.shuffle<f32>(ab, cd, 0, 2, 4, 6);
    const e = v128.shuffle<f32>(ab, cd, 1, 3, 5, 7);
    const byBase = add(m, mul(sub(v128.shuffle<f32>(abNext, cdNext, 0, 2, 4, 6), m), t));
    const plain = add(e, mul(sub(v128.shuffle<f32>(abNext, cdNext, 1, 3, 5, 7), e), t));
    const own = width == 0 ? all(low) : add(all(low), mul(draw(base, stride, i, slot), all(width)));
    const value = most(least(add(mul(own, byBase), plain), all(highest)), all(lowest));
    v128.store(out + (<usize>i << 2), mul(value, all(scale)));
  }
}
