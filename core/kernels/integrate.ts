import { AX, BIRTH_FRACTION, BIRTH_STEP, DRAG, PX, VX } from './layout.ts';
import { at, f, type TwinMemory } from './twin.ts';

const bits = new Int32Array(1);
const float = new Float32Array(bits.buffer);

/** e to the power of x in single precision, −80 to 0 (polynomial of Moshier, 1992, Cephes). */
export function exponential(x: number): number {
  const n = f(Math.floor(f(f(x * f(1.44269504)) + 0.5)));
  const r = f(f(x - f(n * 0.693359375)) + f(n * f(0.00021219444)));
  let p = f(0.00019875691);
  p = f(f(p * r) + f(0.0013981999));
  p = f(f(p * r) + f(0.008333452));
  p = f(f(p * r) + f(0.041665796));
  p = f(f(p * r) + f(0.16666665));
  p = f(f(p * r) + 0.5);
  p = f(f(f(f(p * r) * r) + r) + 1);
  bits[0] = (n + 127) << 23;
  return f(p * float[0]!);
}

/** Places and speeds end at a million metres, and a million metres a second: nothing runs off to infinity. */
const bounded = (x: number): number => Math.max(Math.min(x, 1000000), -1000000);

/**
 * Moves particles through one step, or through what is left of it for the newborn. Drag is solved exactly and the
 * accelerations are held constant: v′ = v·e + a·φ₁ and x′ = x + v·φ₁ + a·φ₂ with e = exp(−k·dt), φ₁ = (1 − e)/k and
 * φ₂ = (dt − φ₁)/k (exponential integrator; Hochbruck and Ostermann, 2010).
 */
export const integrate =
  ({ f32, i32 }: TwinMemory) =>
  (base: number, stride: number, from: number, to: number, step: number, seconds: number): void => {
    for (let i = from; i < to; i++) {
      const steps = f((step + 1 - i32[at(base, stride, BIRTH_STEP, i)]!) | 0);
      const share = Math.min(f(steps - f32[at(base, stride, BIRTH_FRACTION, i)]!), 1);
      const dt = f(share * seconds);
      const k = f32[at(base, stride, DRAG, i)]!;
      const x = Math.min(f(k * dt), 80);
      const kept = exponential(f(0 - x));
      const small = x < f(0.05);
      const first = small ? f(dt * f(1 - f(f(x * 0.5) * f(1 - f(x * f(0.33333334)))))) : f(f(1 - kept) / k);
      const second = small ? f(f(dt * dt) * f(0.5 - f(x * f(0.16666667)))) : f(f(dt - first) / k);
      for (let axis = 0; axis < 3; axis++) {
        const p = at(base, stride, PX + axis, i);
        const v = at(base, stride, VX + axis, i);
        const a = at(base, stride, AX + axis, i);
        const velocity = f32[v]!;
        const acceleration = f32[a]!;
        f32[p] = bounded(f(f32[p]! + f(f(velocity * first) + f(acceleration * second))));
        f32[v] = bounded(f(f(velocity * kept) + f(acceleration * first)));
      }
    }
  };
