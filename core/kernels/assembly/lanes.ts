// Four particles at a time. Plain names keep the kernels as readable as their twins.
// @ts-nocheck
export type Four = v128;

// @ts-ignore: decorator
@inline export function all(x: f32): v128 { return f32x4.splat(x); }
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
/** Strengths of four particles: `each` is 1 for an array, 0 for one value written four times. */
// @ts-ignore: decorator
@inline export function strengthAt(pointer: usize, each: i32, i: i32): v128 {
  return v128.load(pointer + (<usize>(i * each) << 2));
}
/** (1 − r² / reach²)², 0 beyond the reach; `inverse` is 1 / reach², 0 for no limit. */
// @ts-ignore: decorator
@inline export function fade(squared: v128, inverse: f32): v128 {
  const left = f32x4.max(sub(all(1), mul(squared, all(inverse))), all(0));
  return mul(left, left);
}
