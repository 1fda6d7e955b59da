import { PX, PY, PZ, VX, VY, VZ } from './layout.ts';
import { livedInStep } from './integrate.ts';
import { at, dot3, f, least, most, read, root, speedSquared, type Block } from './twin.ts';

/**
 * Moves particles by velocities along three directions (columns of the matrix `m0` to `m8`), leaving no momentum;
 * `once` takes them as ways for the whole step instead.
 */
export function shift(
  block: Block,
  a: number,
  aEach: number,
  b: number,
  bEach: number,
  c: number,
  cEach: number,
  m0: number,
  m1: number,
  m2: number,
  m3: number,
  m4: number,
  m5: number,
  m6: number,
  m7: number,
  m8: number,
  once: number,
  step: number,
  seconds: number,
): void {
  const rows = [
    [m0, m3, m6],
    [m1, m4, m7],
    [m2, m5, m8],
  ] as const;
  for (let i = block.from; i < block.to; i++) {
    const dt = once ? 1 : livedInStep(block, i, step, seconds);
    const x = f(read(block, a, aEach, i) * dt);
    const y = f(read(block, b, bEach, i) * dt);
    const z = f(read(block, c, cEach, i) * dt);
    rows.forEach((row, axis) => {
      const p = at(block, PX + axis, i);
      block.f32[p] = f(block.f32[p]! + dot3(x, y, z, ...row));
    });
  }
}

/**
 * Brings particles to a distance from a point, or from an axis through it (a zero axis is a point), by a share `grip`,
 * and takes away as much of the speed across. With `hasRound` the speed round the axis goes to `round`; without, what a
 * straight step along a circle loses of it is given back: 1 / cos of the angle.
 */
export function orbit(
  block: Block,
  distance: number,
  each: number,
  round: number,
  roundEach: number,
  hasRound: number,
  x: number,
  y: number,
  z: number,
  nx: number,
  ny: number,
  nz: number,
  grips: number,
  gripEach: number,
  seconds: number,
): void {
  const { f32, from, to } = block;
  for (let i = from; i < to; i++) {
    const [px, py, pz] = [at(block, PX, i), at(block, PY, i), at(block, PZ, i)];
    const dx = f(f32[px]! - x);
    const dy = f(f32[py]! - y);
    const dz = f(f32[pz]! - z);
    const along = dot3(dx, dy, dz, nx, ny, nz);
    const qx = f(dx - f(nx * along));
    const qy = f(dy - f(ny * along));
    const qz = f(dz - f(nz * along));
    const inverse = f(1 / most(root(dot3(qx, qy, qz, qx, qy, qz)), f(1e-6)));
    const grip = read(block, grips, gripEach, i);
    const moved = f(f(f(read(block, distance, each, i) * inverse) - 1) * grip);
    f32[px] = f(f32[px]! + f(qx * moved));
    f32[py] = f(f32[py]! + f(qy * moved));
    f32[pz] = f(f32[pz]! + f(qz * moved));

    const [ux, uy, uz] = [f(qx * inverse), f(qy * inverse), f(qz * inverse)];
    const [a, b, c] = [at(block, VX, i), at(block, VY, i), at(block, VZ, i)];
    const across = f(dot3(f32[a]!, f32[b]!, f32[c]!, ux, uy, uz) * grip);
    let vx = f(f32[a]! - f(ux * across));
    let vy = f(f32[b]! - f(uy * across));
    let vz = f(f32[c]! - f(uz * across));
    if (hasRound) {
      const tx = f(f(ny * uz) - f(nz * uy));
      const ty = f(f(nz * ux) - f(nx * uz));
      const tz = f(f(nx * uy) - f(ny * ux));
      const missing = f(f(read(block, round, roundEach, i) - dot3(vx, vy, vz, tx, ty, tz)) * grip);
      vx = f(vx + f(tx * missing));
      vy = f(vy + f(ty * missing));
      vz = f(vz + f(tz * missing));
    } else {
      const turned = f(f(root(dot3(vx, vy, vz, vx, vy, vz)) * seconds) * inverse);
      const lost = f(1 - least(f(turned * turned), 0.5));
      const back = f(1 + f(f(f(1 / root(lost)) - 1) * grip));
      vx = f(vx * back);
      vy = f(vy * back);
      vz = f(vz * back);
    }
    f32[a] = vx;
    f32[b] = vy;
    f32[c] = vz;
  }
}

/** Brings speeds above a limit down to it, by a share `grip` of the difference. */
export function limit(block: Block, fastest: number, each: number, grips: number, gripEach: number): void {
  const { f32, from, to } = block;
  for (let i = from; i < to; i++) {
    const speed = root(speedSquared(block, i));
    const share = least(f(most(read(block, fastest, each, i), 0) / most(speed, f(1e-6))), 1);
    const factor = f(1 + f(f(share - 1) * read(block, grips, gripEach, i)));
    for (const field of [VX, VY, VZ]) f32[at(block, field, i)] = f(f32[at(block, field, i)]! * factor);
  }
}
