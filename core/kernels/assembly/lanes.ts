// Four particles at a time. Plain names keep the kernels as readable as their twins.
// @ts-nocheck
import { KEY, VX, VY, VZ } from '../layout';

// @ts-ignore: decorator
@inline export function all(x: f32): v128 { return f32x4.splat(x); }
// @ts-ignore: decorator
@inline export function whole(x: i32): v128 { return i32x4.splat(x); }
// @ts-ignore: decorator
@inline export function add(a: v128, b: v128): v128 { return f32x4.add(a, b); }
// @ts-ignore: decorator
@inline export function sub(a: v128, b: v128): v128 { return f32x4.sub(a, b); }
// @ts-ignore: decorator
@inline export function mul(a: v128, b: v128): v128 { return f32x4.mul(a, b); }
// @ts-ignore: decorator
@inline export function div(a: v128, b: v128): v128 { return f32x4.div(a, b); }
// @ts-ignore: decorator
@inline export function root(a: v128): v128 { return f32x4.sqrt(a); }
/** The smaller; one instruction, where `f32x4.min` with its care for NaN takes several. */
// @ts-ignore: decorator
@inline export function least(a: v128, b: v128): v128 { return f32x4.pmin(a, b); }
// @ts-ignore: decorator
@inline export function most(a: v128, b: v128): v128 { return f32x4.pmax(a, b); }
/** `a` where the mask is set, `b` elsewhere. */
// @ts-ignore: decorator
@inline export function choose(a: v128, b: v128, mask: v128): v128 { return v128.bitselect(a, b, mask); }
// @ts-ignore: decorator
@inline export function dot3(ax: v128, ay: v128, az: v128, bx: v128, by: v128, bz: v128): v128 {
  return add(add(mul(ax, bx), mul(ay, by)), mul(az, bz));
}
// @ts-ignore: decorator
@inline export function get(base: usize, stride: usize, field: i32, i: i32): v128 {
  return v128.load(base + <usize>field * stride + (<usize>i << 2));
}
// @ts-ignore: decorator
@inline export function put(base: usize, stride: usize, field: i32, i: i32, value: v128): void {
  v128.store(base + <usize>field * stride + (<usize>i << 2), value);
}
/** Reads a value of four particles: `each` is 1 for an array, 0 for one value written four times. */
// @ts-ignore: decorator
@inline export function read(pointer: usize, each: i32, i: i32): v128 {
  return v128.load(pointer + (<usize>(i * each) << 2));
}
/** Adds to one of the four sums of a step: acceleration along x, y, z, and drag. */
// @ts-ignore: decorator
@inline export function sum(sums: usize, which: i32, i: i32, value: v128): void {
  const at = sums + <usize>(which << 11) + (<usize>i << 2);
  v128.store(at, add(v128.load(at), value));
}
// @ts-ignore: decorator
@inline export function summed(sums: usize, which: i32, i: i32): v128 {
  return v128.load(sums + <usize>(which << 11) + (<usize>i << 2));
}
// @ts-ignore: decorator
@inline export function speedSquared(base: usize, stride: usize, i: i32): v128 {
  const x = get(base, stride, VX, i);
  const y = get(base, stride, VY, i);
  const z = get(base, stride, VZ, i);
  return dot3(x, y, z, x, y, z);
}

// Constants used within a loop are loaded: written in place, the engine builds each anew, three instructions every time.
const CONSTANTS = memory.data<f32>([
  1, 1, 1, 1, 0.5, 0.5, 0.5, 0.5, 1000000, 1000000, 1000000, 1000000, -1000000, -1000000, -1000000, -1000000,
  5.9604645e-8, 5.9604645e-8, 5.9604645e-8, 5.9604645e-8,
], 16);
const MIXERS = memory.data<i32>([
  0x7feb352d, 0x7feb352d, 0x7feb352d, 0x7feb352d, 0x846ca68b, 0x846ca68b, 0x846ca68b, 0x846ca68b,
], 16);
// @ts-ignore: decorator
@inline export function one(): v128 { return v128.load(CONSTANTS); }
// @ts-ignore: decorator
@inline export function half(): v128 { return v128.load(CONSTANTS + 16); }
/** Keeps within a million either way. */
// @ts-ignore: decorator
@inline export function bounded(x: v128): v128 {
  return most(least(x, v128.load(CONSTANTS + 32)), v128.load(CONSTANTS + 48));
}
/** (1 - r² / reach²)², 0 beyond the reach; `inverse` is 1 / reach², 0 for no limit. */
// @ts-ignore: decorator
@inline export function fade(squared: v128, inverse: v128): v128 {
  const left = most(sub(one(), mul(squared, inverse)), all(0));
  return mul(left, left);
}
/** The mixing function of maths/hash.ts. */
// @ts-ignore: decorator
@inline export function mix(x: v128): v128 {
  let h = v128.xor(x, i32x4.shr_u(x, 16));
  h = i32x4.mul(h, v128.load(MIXERS));
  h = v128.xor(h, i32x4.shr_u(h, 15));
  h = i32x4.mul(h, v128.load(MIXERS + 16));
  return v128.xor(h, i32x4.shr_u(h, 16));
}
// @ts-ignore: decorator
@inline export function hash2(a: v128, b: i32): v128 {
  return mix(v128.xor(mix(a), whole((b + 1) * 0x9e3779b9)));
}
/** A random number 0 to 1 of four particles, for one purpose. */
// @ts-ignore: decorator
@inline export function draw(base: usize, stride: usize, i: i32, slot: i32): v128 {
  const bits = i32x4.shr_u(hash2(get(base, stride, KEY, i), slot), 8);
  return mul(f32x4.convert_i32x4_s(bits), v128.load(CONSTANTS + 64));
}
