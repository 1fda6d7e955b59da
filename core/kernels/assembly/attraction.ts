import { PX, PY, PZ } from '../layout';
import { add, all, div, dot3, fade, get, least, most, mul, one, read, root, sub, sum } from './lanes';

// @ts-ignore: decorator
@inline function pullTo(sums: usize, i: i32, dx: v128, dy: v128, dz: v128, strength: v128, near: v128, inverse: v128): void {
  const squared = dot3(dx, dy, dz, dx, dy, dz);
  const pull = div(mul(strength, fade(squared, inverse)), root(add(squared, near)));
  sum(sums, 0, i, mul(dx, pull));
  sum(sums, 1, i, mul(dy, pull));
  sum(sums, 2, i, mul(dz, pull));
}

export function attraction(
  base: usize, stride: usize, from: i32, to: i32, sums: usize, s: usize, each: i32,
  x: f32, y: f32, z: f32, near: f32, inverse: f32,
): void {
  const xs = all(x);
  const ys = all(y);
  const zs = all(z);
  const nears = all(near);
  const inverses = all(inverse);
  for (let i = from; i < to; i += 4) {
    const dx = sub(xs, get(base, stride, PX, i));
    const dy = sub(ys, get(base, stride, PY, i));
    const dz = sub(zs, get(base, stride, PZ, i));
    pullTo(sums, i, dx, dy, dz, read(s, each, i), nears, inverses);
  }
}

export function attractionLine(
  base: usize, stride: usize, from: i32, to: i32, sums: usize, s: usize, each: i32,
  x: f32, y: f32, z: f32, alongX: f32, alongY: f32, alongZ: f32, inverseLength: f32, near: f32, inverse: f32,
): void {
  const ax = all(alongX);
  const ay = all(alongY);
  const az = all(alongZ);
  for (let i = from; i < to; i += 4) {
    const dx = sub(all(x), get(base, stride, PX, i));
    const dy = sub(all(y), get(base, stride, PY, i));
    const dz = sub(all(z), get(base, stride, PZ, i));
    const way = sub(all(0), mul(dot3(dx, dy, dz, ax, ay, az), all(inverseLength)));
    const t = most(least(way, one()), all(0));
    pullTo(sums, i, add(dx, mul(ax, t)), add(dy, mul(ay, t)), add(dz, mul(az, t)), read(s, each, i), all(near), all(inverse));
  }
}

export function attractionEach(
  base: usize, stride: usize, from: i32, to: i32, sums: usize, s: usize, each: i32,
  targetX: usize, targetY: usize, targetZ: usize, near: f32, inverse: f32,
): void {
  for (let i = from; i < to; i += 4) {
    const dx = sub(read(targetX, 1, i), get(base, stride, PX, i));
    const dy = sub(read(targetY, 1, i), get(base, stride, PY, i));
    const dz = sub(read(targetZ, 1, i), get(base, stride, PZ, i));
    pullTo(sums, i, dx, dy, dz, read(s, each, i), all(near), all(inverse));
  }
}
