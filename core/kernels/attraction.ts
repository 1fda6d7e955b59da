import { AX, AY, AZ, PX, PY, PZ } from './layout.ts';
import { at, dot3, f, fade, type TwinMemory } from './twin.ts';

/** Accelerates toward (x, y, z); `near` (m²) softens the pull at the very place, `inverse` is 1 / reach². */
export const attraction =
  ({ f32 }: TwinMemory) =>
  (
    base: number,
    stride: number,
    from: number,
    to: number,
    strength: number,
    each: number,
    x: number,
    y: number,
    z: number,
    near: number,
    inverse: number,
  ): void => {
    for (let i = from; i < to; i++) {
      const dx = f(x - f32[at(base, stride, PX, i)]!);
      const dy = f(y - f32[at(base, stride, PY, i)]!);
      const dz = f(z - f32[at(base, stride, PZ, i)]!);
      const squared = dot3(dx, dy, dz, dx, dy, dz);
      const pull = f(f(f32[strength / 4 + i * each]! * fade(squared, inverse)) / f(Math.sqrt(f(squared + near))));
      const a = at(base, stride, AX, i);
      const b = at(base, stride, AY, i);
      const c = at(base, stride, AZ, i);
      f32[a] = f(f32[a]! + f(dx * pull));
      f32[b] = f(f32[b]! + f(dy * pull));
      f32[c] = f(f32[c]! + f(dz * pull));
    }
  };
