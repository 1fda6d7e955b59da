import { AX, AY, AZ, PX, PY, PZ } from './layout.ts';
import { at, dot3, f, fade, type TwinMemory } from './twin.ts';

/** Accelerates round, toward and along the axis (nx, ny, nz) through (x, y, z). */
export const vortex =
  ({ f32 }: TwinMemory) =>
  (
    base: number,
    stride: number,
    from: number,
    to: number,
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
  ): void => {
    for (let i = from; i < to; i++) {
      const dx = f(f32[at(base, stride, PX, i)]! - x);
      const dy = f(f32[at(base, stride, PY, i)]! - y);
      const dz = f(f32[at(base, stride, PZ, i)]! - z);
      const along = dot3(dx, dy, dz, nx, ny, nz);
      const qx = f(dx - f(nx * along));
      const qy = f(dy - f(ny * along));
      const qz = f(dz - f(nz * along));
      const squared = dot3(qx, qy, qz, qx, qy, qz);
      const weight = fade(squared, inverse);
      const over = f(weight / f(Math.sqrt(f(squared + near))));
      const s = f(f32[spin / 4 + i * spinEach]! * over);
      const p = f(f32[pull / 4 + i * pullEach]! * over);
      const l = f(f32[lift / 4 + i * liftEach]! * weight);
      const tx = f(f(ny * qz) - f(nz * qy));
      const ty = f(f(nz * qx) - f(nx * qz));
      const tz = f(f(nx * qy) - f(ny * qx));
      const a = at(base, stride, AX, i);
      const b = at(base, stride, AY, i);
      const c = at(base, stride, AZ, i);
      f32[a] = f(f32[a]! + f(f(f(tx * s) - f(qx * p)) + f(nx * l)));
      f32[b] = f(f32[b]! + f(f(f(ty * s) - f(qy * p)) + f(ny * l)));
      f32[c] = f(f32[c]! + f(f(f(tz * s) - f(qz * p)) + f(nz * l)));
    }
  };
