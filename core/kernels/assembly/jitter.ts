import { KEY } from '../layout';
import { add, all, get, hash2, mul, read, sub, sum, whole } from './lanes';

/** One of three numbers -1 to 1 that a hash holds. */
// @ts-ignore: decorator
@inline function part(h: v128, shift: i32): v128 {
  const bits = v128.and(i32x4.shr_u(h, shift), whole(1023));
  return mul(f32x4.convert_i32x4_s(i32x4.sub(bits, whole(512))), all(0.001953125));
}

// @ts-ignore: decorator
@inline function blended(a: v128, b: v128, shift: i32, blend: v128): v128 {
  const first = part(a, shift);
  return add(first, mul(sub(part(b, shift), first), blend));
}

export function jitter(
  base: usize, stride: usize, from: i32, to: i32, sums: usize, s: usize, each: i32, blend: f32, seed: i32, next: i32,
): void {
  for (let i = from; i < to; i += 4) {
    const key = get(base, stride, KEY, i);
    const a = hash2(key, seed);
    const b = hash2(key, next);
    const strength = read(s, each, i);
    sum(sums, 0, i, mul(blended(a, b, 0, all(blend)), strength));
    sum(sums, 1, i, mul(blended(a, b, 10, all(blend)), strength));
    sum(sums, 2, i, mul(blended(a, b, 20, all(blend)), strength));
  }
}
