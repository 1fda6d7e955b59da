import { PX, PY, PZ, VX, VY, VZ } from '../layout';
import { add, all, choose, div, dot3, get, least, most, mul, one, put, read, root, speedSquared, sub } from './lanes';
import { livedInStep } from './integrate';

/** Moves particles by velocities along three directions, leaving no momentum; `once` takes them as ways for the step. */
export function shift(
  base: usize, stride: usize, from: i32, to: i32,
  first: usize, firstEach: i32, second: usize, secondEach: i32, third: usize, thirdEach: i32,
  ax: f32, ay: f32, az: f32, bx: f32, by: f32, bz: f32, cx: f32, cy: f32, cz: f32,
  once: i32, step: i32, seconds: f32,
): void {
  for (let i = from; i < to; i += 4) {
    const dt = once ? one() : livedInStep(base, stride, i, step, seconds);
    const x = mul(read(first, firstEach, i), dt);
    const y = mul(read(second, secondEach, i), dt);
    const z = mul(read(third, thirdEach, i), dt);
    put(base, stride, PX, i, add(get(base, stride, PX, i), dot3(x, y, z, all(ax), all(bx), all(cx))));
    put(base, stride, PY, i, add(get(base, stride, PY, i), dot3(x, y, z, all(ay), all(by), all(cy))));
    put(base, stride, PZ, i, add(get(base, stride, PZ, i), dot3(x, y, z, all(az), all(bz), all(cz))));
  }
}

/**
 * Brings particles to a distance from a point, or from an axis through it (a zero axis is a point), and takes away the
 * speed across. What a straight step along a circle loses of the speed round it is given back: 1 / cos of the angle.
 */
export function orbit(
  base: usize, stride: usize, from: i32, to: i32, distance: usize, each: i32, round: usize, roundEach: i32, hasRound: i32,
  x: f32, y: f32, z: f32, axisX: f32, axisY: f32, axisZ: f32, grip: usize, gripEach: i32, seconds: f32,
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
    const inverse = div(one(), most(root(dot3(qx, qy, qz, qx, qy, qz)), all(1e-6)));
    const wanted = read(distance, each, i);
    const grips = read(grip, gripEach, i);
    const moved = mul(sub(mul(wanted, inverse), one()), grips);
    put(base, stride, PX, i, add(get(base, stride, PX, i), mul(qx, moved)));
    put(base, stride, PY, i, add(get(base, stride, PY, i), mul(qy, moved)));
    put(base, stride, PZ, i, add(get(base, stride, PZ, i), mul(qz, moved)));

    const ux = mul(qx, inverse);
    const uy = mul(qy, inverse);
    const uz = mul(qz, inverse);
    let vx = get(base, stride, VX, i);
    let vy = get(base, stride, VY, i);
    let vz = get(base, stride, VZ, i);
    const across = mul(dot3(vx, vy, vz, ux, uy, uz), grips);
    vx = sub(vx, mul(ux, across));
    vy = sub(vy, mul(uy, across));
    vz = sub(vz, mul(uz, across));
    if (hasRound) {
      const tx = sub(mul(ny, uz), mul(nz, uy));
      const ty = sub(mul(nz, ux), mul(nx, uz));
      const tz = sub(mul(nx, uy), mul(ny, ux));
      const missing = mul(sub(read(round, roundEach, i), dot3(vx, vy, vz, tx, ty, tz)), grips);
      vx = add(vx, mul(tx, missing));
      vy = add(vy, mul(ty, missing));
      vz = add(vz, mul(tz, missing));
    } else {
      const turned = mul(mul(root(dot3(vx, vy, vz, vx, vy, vz)), all(seconds)), inverse);
      const lost = sub(one(), least(mul(turned, turned), all(0.5)));
      const back = add(one(), mul(sub(div(one(), root(lost)), one()), grips));
      vx = mul(vx, back);
      vy = mul(vy, back);
      vz = mul(vz, back);
    }
    put(base, stride, VX, i, vx);
    put(base, stride, VY, i, vy);
    put(base, stride, VZ, i, vz);
  }
}

/** Brings speeds above a limit down to it, by `grip` of the difference. */
export function limit(
  base: usize, stride: usize, from: i32, to: i32, fastest: usize, each: i32, grip: usize, gripEach: i32,
): void {
  for (let i = from; i < to; i += 4) {
    const speed = root(speedSquared(base, stride, i));
    const share = least(div(most(read(fastest, each, i), all(0)), most(speed, all(1e-6))), one());
    const factor = add(one(), mul(sub(share, one()), read(grip, gripEach, i)));
    put(base, stride, VX, i, mul(get(base, stride, VX, i), factor));
    put(base, stride, VY, i, mul(get(base, stride, VY, i), factor));
    put(base, stride, VZ, i, mul(get(base, stride, VZ, i), factor));
  }
}
