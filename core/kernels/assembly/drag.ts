import { add, all, div, half, most, mul, one, read, root, speedSquared, sub, sum, whole, choose } from './lanes';

export function drag(from: i32, to: i32, sums: usize, s: usize, each: i32): void {
  for (let i = from; i < to; i += 4) sum(sums, 3, i, read(s, each, i));
}

// @ts-ignore: decorator
@inline function logarithm(x: v128): v128 {
  const bits = i32x4.sub(x, whole(0x3f3504f3));
  const exponent = i32x4.shr_s(bits, 23);
  const m = sub(i32x4.add(v128.and(bits, whole(0x007fffff)), whole(0x3f3504f3)), one());
  const e = f32x4.convert_i32x4_s(exponent);
  const s = div(m, add(all(2), m));
  const q = mul(s, s);
  let p = all(0.22222222);
  p = add(mul(p, q), all(0.2857143));
  p = add(mul(p, q), all(0.4));
  p = add(mul(p, q), all(0.6666667));
  p = add(mul(mul(p, q), s), mul(all(2), s));
  return add(mul(e, all(0.6931472)), p);
}

export function airDrag(
  base: usize, stride: usize, from: i32, to: i32, sums: usize, s: usize, each: i32, seconds: f32, perSecond: f32,
): void {
  for (let i = from; i < to; i += 4) {
    const x = mul(mul(most(read(s, each, i), all(0)), root(speedSquared(base, stride, i))), all(seconds));
    sum(sums, 3, i, mul(logarithm(add(one(), x)), all(perSecond)));
  }
}
