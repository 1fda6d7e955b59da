import { PX, PY, PZ } from '../layout';
import { add, all, get, mul, read, sub, sum } from './lanes';

const CONSTANTS = memory.data<f32>([
  1, 1, 1, 1, 6, 6, 6, 6, 15, 15, 15, 15, 10, 10, 10, 10,
  0.05859375, 0.05859375, 0.05859375, 0.05859375, 12582912, 12582912, 12582912, 12582912,
], 16);
const WHOLES = memory.data<i32>([
  0x846ca68b, 0x846ca68b, 0x846ca68b, 0x846ca68b, 0x03ff03ff, 0x03ff03ff, 0x03ff03ff, 0x03ff03ff,
  0x000003ff, 0x000003ff, 0x000003ff, 0x000003ff,
  0x27d4eb2d, 0x27d4eb2d, 0x27d4eb2d, 0x27d4eb2d, 0x165667b1, 0x165667b1, 0x165667b1, 0x165667b1,
  0x1b873593, 0x1b873593, 0x1b873593, 0x1b873593,
  1, 1, 1, 1,
], 16);
const MULTIPLIER: usize = 0;
const PAIR: usize = 16;
const SINGLE: usize = 32;
const PRIME_X: usize = 48;
const PRIME_Y: usize = 64;
const PRIME_Z: usize = 80;
const ONES: usize = 96;

// Curl of the field last computed: an inlined function has only one result.
let curlX: v128 = f32x4.splat(0);
let curlY: v128 = f32x4.splat(0);
let curlZ: v128 = f32x4.splat(0);

// @ts-ignore: decorator
@inline function constant(at: usize): v128 { return v128.load(CONSTANTS + at); }
// @ts-ignore: decorator
@inline function integer(at: usize): v128 { return v128.load(WHOLES + at); }

/** A whole number times a prime; as an integer it is the bits of its sum with 1.5 × 2²³. */
// @ts-ignore: decorator
@inline function lattice(floor: v128, prime: usize): v128 {
  return i32x4.mul(add(floor, constant(80)), integer(prime));
}
// @ts-ignore: decorator
@inline function corner(x: v128, yz: v128): v128 {
  let h = v128.xor(x, yz);
  h = i32x4.mul(v128.xor(h, i32x4.shr_u(h, 15)), integer(MULTIPLIER));
  return v128.xor(h, i32x4.shr_u(h, 13));
}
// @ts-ignore: decorator
@inline function easing(t: v128): v128 {
  return mul(mul(mul(t, t), t), add(mul(t, sub(mul(t, constant(16)), constant(32))), constant(48)));
}
/** The easing's slope, times what brings the lattice's whole numbers to -1..1. */
// @ts-ignore: decorator
@inline function easingSlope(t: v128): v128 {
  const s = mul(t, sub(t, constant(0)));
  return mul(constant(64), mul(s, s));
}

// Two potentials' values lie in the halves of one word and are subtracted together; the third has a word of its own.
// @ts-ignore: decorator
@inline function twice(h: v128): v128 { return v128.and(h, integer(PAIR)); }
// @ts-ignore: decorator
@inline function third(h: v128): v128 { return v128.and(i32x4.shr_u(h, 6), integer(SINGLE)); }
// @ts-ignore: decorator
@inline function minus(a: v128, b: v128): v128 { return i16x8.sub(a, b); }
// @ts-ignore: decorator
@inline function low(x: v128): v128 { return f32x4.convert_i32x4_s(i32x4.dot_i16x8_s(x, integer(ONES))); }
// @ts-ignore: decorator
@inline function high(x: v128): v128 { return f32x4.convert_i32x4_s(i32x4.shr_s(x, 16)); }
// @ts-ignore: decorator
@inline function float(x: v128): v128 { return f32x4.convert_i32x4_s(x); }

// @ts-ignore: decorator
@inline function slope(d: v128, p: v128, q: v128, along: v128, byP: v128, byQ: v128, byBoth: v128): v128 {
  return mul(d, add(add(along, mul(byP, p)), mul(add(byQ, mul(byBoth, p)), q)));
}

/** The corners of the cells that four places are in, hashed, and the curl in between. */
// @ts-ignore: decorator
@inline function field(
  x0: v128, x1: v128, y0z0: v128, y1z0: v128, y0z1: v128, y1z1: v128,
  u: v128, v: v128, w: v128, du: v128, dv: v128, dw: v128,
): void {
  const ha = corner(x0, y0z0);
  const hb = corner(x1, y0z0);
  const hc = corner(x0, y1z0);
  const hd = corner(x1, y1z0);
  const he = corner(x0, y0z1);
  const hf = corner(x1, y0z1);
  const hg = corner(x0, y1z1);
  const hh = corner(x1, y1z1);
  const a = twice(ha);
  const c = twice(hc);
  const e = twice(he);
  const g = twice(hg);
  const ba = minus(twice(hb), a);
  const fe = minus(twice(hf), e);
  const ca = minus(c, a);
  const ea = minus(e, a);
  const k4 = minus(minus(twice(hd), c), ba);
  const k5 = minus(minus(g, c), ea);
  const k6 = minus(fe, ba);
  const k7 = minus(minus(minus(twice(hh), g), fe), k4);
  const a3 = third(ha);
  const c3 = third(hc);
  const e3 = third(he);
  const g3 = third(hg);
  const ba3 = i32x4.sub(third(hb), a3);
  const fe3 = i32x4.sub(third(hf), e3);
  const ca3 = i32x4.sub(c3, a3);
  const ea3 = i32x4.sub(e3, a3);
  const k43 = i32x4.sub(i32x4.sub(third(hd), c3), ba3);
  const k53 = i32x4.sub(i32x4.sub(g3, c3), ea3);
  const k63 = i32x4.sub(fe3, ba3);
  const k73 = i32x4.sub(i32x4.sub(i32x4.sub(third(hh), g3), fe3), k43);

  const thirdX = slope(du, v, w, float(ba3), float(k43), float(k63), float(k73));
  const thirdY = slope(dv, w, u, float(ca3), float(k53), float(k43), float(k73));
  const firstY = slope(dv, w, u, low(ca), low(k5), low(k4), low(k7));
  const firstZ = slope(dw, u, v, low(ea), low(k6), low(k5), low(k7));
  const secondX = slope(du, v, w, high(ba), high(k4), high(k6), high(k7));
  const secondZ = slope(dw, u, v, high(ea), high(k6), high(k5), high(k7));
  curlX = sub(thirdY, secondZ);
  curlY = sub(firstZ, thirdX);
  curlZ = sub(secondX, firstY);
}

export function curl(
  base: usize, stride: usize, from: i32, to: i32, sums: usize, s: usize, each: i32,
  inverseSize: f32, driftX: f32, driftY: f32, driftZ: f32, blend: f32, seed: i32, next: i32,
): void {
  const first = all(<f32>1 - blend);
  const second = all(blend);
  const isBlended = blend != 0;
  const seeds = i32x4.splat(seed);
  const others = i32x4.splat(next);
  for (let i = from; i < to; i += 4) {
    const x = sub(mul(get(base, stride, PX, i), all(inverseSize)), all(driftX));
    const y = sub(mul(get(base, stride, PY, i), all(inverseSize)), all(driftY));
    const z = sub(mul(get(base, stride, PZ, i), all(inverseSize)), all(driftZ));
    const fx = f32x4.floor(x);
    const fy = f32x4.floor(y);
    const fz = f32x4.floor(z);
    const x0 = lattice(fx, PRIME_X);
    const x1 = i32x4.add(x0, integer(PRIME_X));
    const y0 = lattice(fy, PRIME_Y);
    const y1 = i32x4.add(y0, integer(PRIME_Y));
    const z0 = lattice(fz, PRIME_Z);
    const z1 = i32x4.add(z0, integer(PRIME_Z));
    const y0z0 = v128.xor(y0, z0);
    const y1z0 = v128.xor(y1, z0);
    const y0z1 = v128.xor(y0, z1);
    const y1z1 = v128.xor(y1, z1);
    const tx = sub(x, fx);
    const ty = sub(y, fy);
    const tz = sub(z, fz);
    const u = easing(tx);
    const v = easing(ty);
    const w = easing(tz);
    const du = easingSlope(tx);
    const dv = easingSlope(ty);
    const dw = easingSlope(tz);
    const strength = read(s, each, i);
    field(v128.xor(x0, seeds), v128.xor(x1, seeds), y0z0, y1z0, y0z1, y1z1, u, v, w, du, dv, dw);
    if (isBlended) {
      const cx = mul(curlX, first);
      const cy = mul(curlY, first);
      const cz = mul(curlZ, first);
      field(v128.xor(x0, others), v128.xor(x1, others), y0z0, y1z0, y0z1, y1z1, u, v, w, du, dv, dw);
      curlX = add(cx, mul(curlX, second));
      curlY = add(cy, mul(curlY, second));
      curlZ = add(cz, mul(curlZ, second));
    }
    sum(sums, 0, i, mul(curlX, strength));
    sum(sums, 1, i, mul(curlY, strength));
    sum(sums, 2, i, mul(curlZ, strength));
  }
}
