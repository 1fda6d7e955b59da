import { PX, PY, PZ } from '../layout';
import { add, all, div, dot3, fade, get, mul, read, root, sub, sum } from './lanes';

export function vortex(
  base: usize, stride: usize, from: i32, to: i32, sums: usize,
  spin: usize, spinEach: i32, pull: usize, pullEach: i32, lift: usize, liftEach: i32,
  x: f32, y: f32, z: f32, axisX: f32, axisY: f32, axisZ: f32, near: f32, inverse: f32,
): void {
  const nx = all(axisX);
  const ny = all(axisY);
  const nz = all(axisZ);
  const xs = all(x);
  const ys = all(y);
  const zs = all(z);
  const nears = all(near);
  const inverses = all(inverse);
  for (let i = from; i < to; i += 4) {
    const dx = sub(get(base, stride, PX, i), xs);
    const dy = sub(get(base, stride, PY, i), ys);
    const dz = sub(get(base, stride, PZ, i), zs);
    const tx = sub(mul(ny, dz), mul(nz, dy));
    const ty = sub(mul(nz, dx), mul(nx, dz));
    const tz = sub(mul(nx, dy), mul(ny, dx));
    const squared = dot3(tx, ty, tz, tx, ty, tz);
    const along = dot3(dx, dy, dz, nx, ny, nz);
    const weight = fade(squared, inverses);
    const over = div(weight, root(add(squared, nears)));
    const s = mul(read(spin, spinEach, i), over);
    const p = mul(read(pull, pullEach, i), over);
    const l = mul(read(lift, liftEach, i), weight);
    const up = add(l, mul(along, p));
    sum(sums, 0, i, add(sub(mul(tx, s), mul(dx, p)), mul(nx, up)));
    sum(sums, 1, i, add(sub(mul(ty, s), mul(dy, p)), mul(ny, up)));
    sum(sums, 2, i, add(sub(mul(tz, s), mul(dz, p)), mul(nz, up)));
  }
}
