import { AX, AY, AZ, PX, PY, PZ } from '../layout';
import { add, all, div, dot3, fade, get, mul, put, root, strengthAt, sub } from './lanes';

export function attraction(
  base: usize,
  stride: usize,
  from: i32,
  to: i32,
  strength: usize,
  each: i32,
  x: f32,
  y: f32,
  z: f32,
  near: f32,
  inverse: f32,
): void {
  for (let i = from; i < to; i += 4) {
    const dx = sub(all(x), get(base, stride, PX, i));
    const dy = sub(all(y), get(base, stride, PY, i));
    const dz = sub(all(z), get(base, stride, PZ, i));
    const squared = dot3(dx, dy, dz, dx, dy, dz);
    const pull = div(mul(strengthAt(strength, each, i), fade(squared, inverse)), root(add(squared, all(near))));
    put(base, stride, AX, i, add(get(base, stride, AX, i), mul(dx, pull)));
    put(base, stride, AY, i, add(get(base, stride, AY, i), mul(dy, pull)));
    put(base, stride, AZ, i, add(get(base, stride, AZ, i), mul(dz, pull)));
  }
}
