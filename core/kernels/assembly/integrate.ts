import { BIRTH_FRACTION, BIRTH_STEP, PX, PY, PZ, VX, VY, VZ } from '../layout';
import { add, all, bounded, choose, div, get, half, least, mul, one, put, sub, summed, whole } from './lanes';

// @ts-ignore: decorator
@inline function exponential(x: v128): v128 {
  const n = f32x4.floor(add(mul(x, all(1.44269504)), half()));
  const r = add(sub(x, mul(n, all(0.693359375))), mul(n, all(0.00021219444)));
  let p = all(0.00019875691);
  p = add(mul(p, r), all(0.0013981999));
  p = add(mul(p, r), all(0.008333452));
  p = add(mul(p, r), all(0.041665796));
  p = add(mul(p, r), all(0.16666665));
  p = add(mul(p, r), half());
  p = add(add(mul(mul(p, r), r), r), one());
  return mul(p, i32x4.shl(add(n, all(12583039)), 23));
}

/** Seconds of a step that four particles live: less than the whole for the newborn. */
// @ts-ignore: decorator
@inline export function livedInStep(base: usize, stride: usize, i: i32, step: i32, seconds: f32): v128 {
  const steps = f32x4.convert_i32x4_s(i32x4.sub(whole(step + 1), get(base, stride, BIRTH_STEP, i)));
  return mul(least(sub(steps, get(base, stride, BIRTH_FRACTION, i)), one()), all(seconds));
}

// @ts-ignore: decorator
@inline function axis(
  base: usize, stride: usize, i: i32, p: i32, v: i32, acceleration: v128, kept: v128, first: v128, second: v128,
): void {
  const velocity = get(base, stride, v, i);
  const moved = add(mul(velocity, first), mul(acceleration, second));
  put(base, stride, p, i, bounded(add(get(base, stride, p, i), moved)));
  put(base, stride, v, i, bounded(add(mul(velocity, kept), mul(acceleration, first))));
}

// @ts-ignore: decorator
@inline function three(
  base: usize, stride: usize, sums: usize, i: i32, x: f32, y: f32, z: f32, kept: v128, first: v128, second: v128,
): void {
  axis(base, stride, i, PX, VX, add(summed(sums, 0, i), all(x)), kept, first, second);
  axis(base, stride, i, PY, VY, add(summed(sums, 1, i), all(y)), kept, first, second);
  axis(base, stride, i, PZ, VZ, add(summed(sums, 2, i), all(z)), kept, first, second);
}

/** (x, y, z) accelerates all alike. Those before `even` live the whole step under the same drag: what drag makes of it was computed once. */
export function integrate(
  base: usize, stride: usize, from: i32, to: i32, sums: usize,
  x: f32, y: f32, z: f32, even: i32, kept: f32, first: f32, second: f32, drag: f32, step: i32, seconds: f32,
): void {
  let i = from;
  for (; i < to && i + 4 <= even; i += 4) three(base, stride, sums, i, x, y, z, all(kept), all(first), all(second));
  for (; i < to; i += 4) {
    const dt = livedInStep(base, stride, i, step, seconds);
    const k = add(summed(sums, 3, i), all(drag));
    const damped = least(mul(k, dt), all(80));
    const left = exponential(sub(all(0), damped));
    const isSmall = f32x4.lt(damped, all(0.05));
    const inverse = div(one(), k);
    const firstSmall = mul(dt, sub(one(), mul(mul(damped, half()), sub(one(), mul(damped, all(0.33333334))))));
    const firstEach = choose(firstSmall, mul(sub(one(), left), inverse), isSmall);
    const secondSmall = mul(mul(dt, dt), sub(half(), mul(damped, all(0.16666667))));
    const secondEach = choose(secondSmall, mul(sub(dt, firstEach), inverse), isSmall);
    three(base, stride, sums, i, x, y, z, left, firstEach, secondEach);
  }
}
