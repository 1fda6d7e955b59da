import { PX, PY, PZ } from '../layout';
import { add, all, div, dot3, fade, get, mul, read, root, sub, sum } from './lanes';

export function shell(
  base: usize, stride: usize, from: i32, to: i32, sums: usize, s: usize, each: i32,
  x: f32, y: f32, z: f32, radius: f32, inverseWidth: f32, near: f32, inverse: f32,
): void {
  for (let i = from; i < to; i += 4) {
    const dx = sub(get(base, stride, PX, i), all(x));
    const dy = sub(get(base, stride, PY, i), all(y));
    const dz = sub(get(base, stride, PZ, i), all(z));
    const squared = dot3(dx, dy, dz, dx, dy, dz);
    const distance = root(add(squared, all(near)));
    const off = mul(sub(distance, all(radius)), all(inverseWidth));
    const weight = mul(fade(mul(off, off), all(1)), fade(squared, all(inverse)));
    const push = div(mul(read(s, each, i), weight), distance);
    sum(sums, 0, i, mul(dx, push));
    sum(sums, 1, i, mul(dy, push));
    sum(sums, 2, i, mul(dz, push));
  }
}
