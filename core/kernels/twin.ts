/** Views of the whole simulation memory, for kernels written in plain TypeScript. */
export interface TwinMemory {
  readonly f32: Float32Array;
  readonly i32: Int32Array;
}

/** Rounds to single precision: a twin rounds after each operation, as the lanes of a SIMD kernel do. */
export const f = Math.fround;

/** Index of the word at a byte address plus a field and a particle. */
export const at = (base: number, stride: number, field: number, i: number): number => (base + stride * field) / 4 + i;

/** (1 − r² / reach²)², 0 beyond the reach. */
export function fade(squared: number, inverse: number): number {
  const left = f(Math.max(f(1 - f(squared * inverse)), 0));
  return f(left * left);
}

export const dot3 = (ax: number, ay: number, az: number, bx: number, by: number, bz: number): number =>
  f(f(f(ax * bx) + f(ay * by)) + f(az * bz));
