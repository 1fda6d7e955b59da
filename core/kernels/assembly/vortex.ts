import { AX, AY, AZ, PX, PY, PZ } from '../layout';
import { add, all, div, dot3, fade, get, mul, put, root, strengthAt, sub } from './lanes';

export function vortex(
  base: usize,
  stride: usize,
  from: i32,
  to: i32,
  spin: usize,
  spinEach: i32,
  pull: usize,
  pullEach: i32,
  lift: usize,
  liftEach: i32,
  x: f32,
  y: f32,
  z: f32,
  axisX: f32,
  axisY: f32,
  axisZ: f32,
  near: f32,
  inverse: f32,
): void {
  const nx = all(axisX);
  const ny = all(axisY);
  const nz = all(axisZ);
  for (let i = from; i < to; i += 4) {
    const dx = sub(get(base, stride, PX, i), all(x));
    const dy = sub(get(base, stride, PY, i), all(y));
    const dz = sub(get(base, stride, PZ, i), all(z));
    const along = dot3(dx, dy, dz, nx, ny, nz);
    const qx = sub(dx, mul(nx, along));
    const qy = sub(dy, mul(ny, along));
    const qz = sub(dz, mul(nz, along));
    const squared = dot3(qx, qy, qz, qx, qy, qz);
    const weight = fade(squared, inverse);
    const over = div(weight, root(add(squared, all(near))));
    const s = mul(strengthAt(spin, spinEach, i), over);
    const p = mul(strengthAt(pull, pullEach, i), over);
    const l = mul(strengthAt(lift, liftEach, i), weight);
    const tx = sub(mul(ny, qz), mul(nz, qy));
    const ty = sub(mul(nz, qx), mul(nx, qz));
    const tz = sub(mul(nx, qy), mul(ny, qx));
    put(base, stride, AX, i, add(get(base, stride, AX, i), add(sub(mul(tx, s), mul(qx, p)), mul(nx, l))));
    put(base, stride, AY, i, add(get(base, stride, AY, i), add(sub(mul(ty, s), mul(qy, p)), mul(ny, l))));
    put(base, stride, AZ, i, add(get(base, stride, AZ, i), add(sub(mul(tz, s), mul(qz, p)), mul(nz, l))));
  }
}
