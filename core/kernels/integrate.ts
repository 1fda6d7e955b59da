import { BIRTH_FRACTION, BIRTH_STEP, PX, VX } from './layout.ts';
import { at, f, least, most, summed, type Block } from './twin.ts';

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
const bounded = (x: number): number => most(least(x, 1000000), -1000000);

/** Seconds of a step that particle `i` lives: less than the whole for the newborn. */
export function livedInStep(block: Block, i: number, step: number, seconds: number): number {
  const steps = f((step + 1 - block.i32[at(block, BIRTH_STEP, i)]!) | 0);
  return f(least(f(steps - block.f32[at(block, BIRTH_FRACTION, i)]!), 1) * seconds);
}

/** What a drag k leaves of things over dt seconds: kept = exp(−k·dt), first = (1 − kept) / k, second = (dt − first) / k. */
export interface Decay {
  readonly kept: number;
  readonly first: number;
  readonly second: number;
}

export function decayOf(k: number, dt: number): Decay {
  const x = least(f(k * dt), 80);
  const kept = exponential(f(0 - x));
  const isSmall = x < f(0.05);
  const inverse = f(1 / k);
  const first = isSmall ? f(dt * f(1 - f(f(x * 0.5) * f(1 - f(x * f(0.33333334)))))) : f(f(1 - kept) * inverse);
  const second = isSmall ? f(f(dt * dt) * f(0.5 - f(x * f(0.16666667)))) : f(f(dt - first) * inverse);
  return { kept, first, second };
}

/**
 * Moves particles through one step, or through what is left of it for the newborn. Drag is solved exactly and the
 * accelerations are held constant: v′ = v·e + a·φ₁ and x′ = x + v·φ₁ + a·φ₂ with e = exp(−k·dt), φ₁ = (1 − e)/k and
 * φ₂ = (dt − φ₁)/k (exponential integrator; Hochbruck and Ostermann, 2010). (x, y, z) accelerates all alike. Groups of four that end before `even` live
 * the whole step and feel no other drag than `drag`: what it makes of them comes as `kept`, `first` and `second`.
 */
export function integrate(
  block: Block,
  x: number,
  y: number,
  z: number,
  even: number,
  kept: number,
  first: number,
  second: number,
  drag: number,
  step: number,
  seconds: number,
): void {
  const { f32, from, to } = block;
  const alike = [x, y, z];
  const evenTo = least(to, Math.floor(even / 4) * 4);
  for (let i = from; i < to; i++) {
    const decay =
      i < evenTo
        ? { kept, first, second }
        : decayOf(f(summed(block, 3, i) + drag), livedInStep(block, i, step, seconds));
    for (let axis = 0; axis < 3; axis++) {
      const p = at(block, PX + axis, i);
      const v = at(block, VX + axis, i);
      const velocity = f32[v]!;
      const acceleration = f(summed(block, axis, i) + alike[axis]!);
      f32[p] = bounded(f(f32[p]! + f(f(velocity * decay.first) + f(acceleration * decay.second))));
      f32[v] = bounded(f(f(velocity * decay.kept) + f(acceleration * decay.first)));
    }
  }
}
