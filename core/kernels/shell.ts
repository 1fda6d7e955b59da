import { PX, PY, PZ } from './layout.ts';
import { at, dot3, f, fade, read, root, sum, type Block } from './twin.ts';

/** Accelerates outward from (x, y, z) within `1 / inverseWidth` metres of a sphere of a radius that grows. */
export function shell(
  block: Block,
  s: number,
  each: number,
  x: number,
  y: number,
  z: number,
  radius: number,
  inverseWidth: number,
  near: number,
  inverse: number,
): void {
  const { f32, from, to } = block;
  for (let i = from; i < to; i++) {
    const dx = f(f32[at(block, PX, i)]! - x);
    const dy = f(f32[at(block, PY, i)]! - y);
    const dz = f(f32[at(block, PZ, i)]! - z);
    const squared = dot3(dx, dy, dz, dx, dy, dz);
    const distance = root(f(squared + near));
    const off = f(f(distance - radius) * inverseWidth);
    const weight = f(fade(f(off * off), 1) * fade(squared, inverse));
    const push = f(f(read(block, s, each, i) * weight) / distance);
    sum(block, 0, i, f(dx * push));
    sum(block, 1, i, f(dy * push));
    sum(block, 2, i, f(dz * push));
  }
}
