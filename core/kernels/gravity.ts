import { AY } from './layout.ts';
import { at, f, type TwinMemory } from './twin.ts';

/** Takes `strength` (m/s²) from the vertical acceleration. */
export const gravity =
  ({ f32 }: TwinMemory) =>
  (base: number, stride: number, from: number, to: number, strength: number, each: number): void => {
    for (let i = from; i < to; i++) {
      const y = at(base, stride, AY, i);
      f32[y] = f(f32[y]! - f32[strength / 4 + i * each]!);
    }
  };
