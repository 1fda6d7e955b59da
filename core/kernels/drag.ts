import { DRAG } from './layout.ts';
import { at, f, type TwinMemory } from './twin.ts';

/** Adds `strength` (1/s) to the drag, which the integrator applies exactly. */
export const drag =
  ({ f32 }: TwinMemory) =>
  (base: number, stride: number, from: number, to: number, strength: number, each: number): void => {
    for (let i = from; i < to; i++) {
      const k = at(base, stride, DRAG, i);
      f32[k] = f(f32[k]! + f32[strength / 4 + i * each]!);
    }
  };
