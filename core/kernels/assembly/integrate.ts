import { AX, AY, AZ, BIRTH_FRACTION, BIRTH_STEP, DRAG, PX, PY, PZ, VX, VY, VZ } from '../layout';
import { add, all, div, get, mul, put, sub } from './lanes';

// @ts-ignore: decorator
@inline function exponential(x: v128): v128 {
  const n = f32x4.floor(add(mul(x, all(1.44269504)), all(0.5)));
  const r = add(sub(x, mul(n, all(0.693359375))), mul(n, all(0.00021219444)));
  let p = all(0.00019875691);
  p = add(mul(p, r), all(0.0013981999));
  p = add(mul(p, r), all(0.008333452));
  p = add(mul(p, r), all(0.041665796));
  p = add(mul(p, r), all(0.16666665));
  p = add(mul(p, r), all(0.5));
  p = add(add(mul(mul(p, r), r), r), all(1));
  const exponent = i32x4.shl(i32x4.add(i32x4.trunc_sat_f32x4_s(n), i32x4.splat(127)), 23);
  return mul(p, exponent);
}

// @ts-ignore: decorator
@inline function bounded(x: v128): v128 {
  return f32x4.max(f32x4.min(x, all(1000000)), all(-1000000));
}

// @ts-ignore: decorator
@inline function axis(base: usize, stride: usize, i: i32, p: i32, v: i32, a: i32, kept: v128, first: v128, second: v128): void {
  const velocity = get(base, stride, v, i);
  const acceleration = get(base, stride, a, i);
  const moved = add(mul(velocity, first), mul(acceleration, second));
  put(base, stride, p, i, bounded(add(get(base, stride, p, i), moved)));
  put(base, stride, v, i, bounded(add(mul(velocity, kept), mul(acceleration, first))));
}

export function integrate(base: usize, stride: usize, from: i32, to: i32, step: i32, seconds: f32): void {
  for (let i = from; i < to; i += 4) {
    const steps = f32x4.convert_i32x4_s(i32x4.sub(i32x4.splat(step + 1), get(base, stride, BIRTH_STEP, i)));
    const share = f32x4.min(sub(steps, get(base, stride, BIRTH_FRACTION, i)), all(1));
    const dt = mul(share, all(seconds));
    const k = get(base, stride, DRAG, i);
    const x = f32x4.min(mul(k, dt), all(80));
    const kept = exponential(sub(all(0), x));
    const small = f32x4.lt(x, all(0.05));
    const firstSmall = mul(dt, sub(all(1), mul(mul(x, all(0.5)), sub(all(1), mul(x, all(0.33333334))))));
    const first = v128.bitselect(firstSmall, div(sub(all(1), kept), k), small);
    const secondSmall = mul(mul(dt, dt), sub(all(0.5), mul(x, all(0.16666667))));
    const second = v128.bitselect(secondSmall, div(sub(dt, first), k), small);
    axis(base, stride, i, PX, VX, AX, kept, first, second);
    axis(base, stride, i, PY, VY, AY, kept, first, second);
    axis(base, stride, i, PZ, VZ, AZ, kept, first, second);
  }
}
