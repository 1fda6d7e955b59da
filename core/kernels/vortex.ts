import { PX, PY, PZ } from './layout.ts';
import { at, dot3, f, fade, read, root, sum, type Block } from './twin.ts';

/** Accelerates round, toward and along the axis (nx, ny, nz) through (x, y, z). */
export function vortex(
  block: Block,
  spin: number,
  spinEach: number,
  pull: number,
  pullEach: number,
  lift: number,
  liftEach: number,
  x: number,
  y: number,
  z: number,
  nx: number,
  ny: number,
  nz: number,
  near: number,
  inverse: number,
): void {
  const { f32, from, to } = block;
  for (let i = from; i < to; i++) {
    const dx = f(f32[at(block, PX, i)]! - x);
    const dy = f(f32[at(block, PY, i)]! - y);
    const dz = f(f32[at(block, PZ, i)]! - z);
    const tx = f(f(ny * dz) - f(nz * dy));
    const ty = f(f(nz * dx) - f(nx * dz));
    const tz = f(f(nx * dy) - f(ny * dx));
    const squared = dot3(tx, ty, tz, tx, ty, tz);
    const along = dot3(dx, dy, dz, nx, ny, nz);
    const weight = fade(squared, inverse);
    const over = f(weight / root(f(squared + near)));
    const s = f(read(block, spin, spinEach, i) * over);
    const p = f(read(block, pull, pullEach, i) * over);
    const l = f(read(block, lift, liftEach, i) * weight);
    const up = f(l + f(along * p));
    sum(block, 0, i, f(f(f(tx * s) - f(dx * p)) + f(nx * up)));
    sum(block, 1, i, f(f(f(ty * s) - f(dy * p)) + f(ny * up)));
    sum(block, 2, i, f(f(f(tz * s) - f(dz * p)) + f(nz * up)));
  }
}
