import { BLOCK, KEY, VX, VY, VZ } from './layout.ts';

/** Views of the whole simulation memory, for kernels written in plain TypeScript. */
export interface TwinMemory {
  readonly f32: Float32Array;
  readonly i32: Int32Array;
}

/** A block of a layer's particles that a call of a program works on. Addresses in bytes. */
export interface Block extends TwinMemory {
  base: number;
  stride: number;
  from: number;
  to: number;
  /** Where the sums of particle 0 would be. */
  sums: number;
}

/** Rounds to single precision: a twin rounds after each operation, as the lanes of a SIMD kernel do. */
export const f = Math.fround;

/** Index of the word of a field of particle `i`. */
export const at = ({ base, stride }: Pick<Block, 'base' | 'stride'>, field: number, i: number): number =>
  (base + stride * field) / 4 + i;

/** Value of particle `i` at an address: of an array, or with `each` 0 the one value all share. */
export const read = ({ f32 }: TwinMemory, address: number, each: number, i: number): number =>
  f32[address / 4 + i * each]!;

const sumAt = ({ sums }: Block, which: number, i: number): number => sums / 4 + which * BLOCK + i;

/** Adds to one of the four sums of a step: acceleration along x, y, z, and drag. */
export function sum(block: Block, which: number, i: number, value: number): void {
  const word = sumAt(block, which, i);
  block.f32[word] = f(block.f32[word]! + f(value));
}
export const summed = (block: Block, which: number, i: number): number => block.f32[sumAt(block, which, i)]!;
export function setSum(block: Block, which: number, i: number, value: number): void {
  block.f32[sumAt(block, which, i)] = value;
}

/** (1 − r² / reach²)², 0 beyond the reach. */
export function fade(squared: number, inverse: number): number {
  const left = f(most(f(1 - f(squared * inverse)), 0));
  return f(left * left);
}

export const dot3 = (ax: number, ay: number, az: number, bx: number, by: number, bz: number): number =>
  f(f(f(ax * bx) + f(ay * by)) + f(az * bz));

export const root = (x: number): number => f(Math.sqrt(x));

export function speedSquared(block: Block, i: number): number {
  const [x, y, z] = [VX, VY, VZ].map((field) => block.f32[at(block, field, i)]!) as [number, number, number];
  return dot3(x, y, z, x, y, z);
}

/** The mixing function of maths/hash.ts, on signed words. */
export function mix(x: number): number {
  let h = x ^ (x >>> 16);
  h = Math.imul(h, 0x7feb352d);
  h ^= h >>> 15;
  h = Math.imul(h, 0x846ca68b);
  return h ^ (h >>> 16);
}

export const hash2 = (a: number, b: number): number => mix(mix(a) ^ Math.imul(b + 1, 0x9e3779b9));

/** A random number 0 ≤ u < 1 of particle `i`, for one purpose. */
export const draw = (block: Block, i: number, slot: number): number =>
  f((hash2(block.i32[at(block, KEY, i)]!, slot) >>> 8) * f(5.9604645e-8));

/** The smaller and the larger as a lane of SIMD finds them (−0 and 0 are equal there). */
export const least = (a: number, b: number): number => (b < a ? b : a);
export const most = (a: number, b: number): number => (a < b ? b : a);
