// The three forces of the layer benchmark as they were when its goal was set: what the step is measured against, whatever
// becomes of the kernels since. Copied from core/kernels/assembly/ and not to be changed. Built by ../frozenForces.ts.
import { BLOCK, PX, PY, PZ } from '../../core/kernels/layout';

// @ts-ignore: decorator
@inline function all(x: f32): v128 { return f32x4.splat(x); }
// @ts-ignore: decorator
@inline function add(a: v128, b: v128): v128 { return f32x4.add(a, b); }
// @ts-ignore: decorator
@inline function sub(a: v128, b: v128): v128 { return f32x4.sub(a, b); }
// @ts-ignore: decorator
@inline function mul(a: v128, b: v128): v128 { return f32x4.mul(a, b); }
// @ts-ignore: decorator
@inline function div(a: v128, b: v128): v128 { return f32x4.div(a, b); }
// @ts-ignore: decorator
@inline function root(a: v128): v128 { return f32x4.sqrt(a); }
// @ts-ignore: decorator
@inline function most(a: v128, b: v128): v128 { return f32x4.pmax(a, b); }
// @ts-ignore: decorator
@inline function dot3(ax: v128, ay: v128, az: v128, bx: v128, by: v128, bz: v128): v128 {
  return add(add(mul(ax, bx), mul(ay, by)), mul(az, bz));
}
// @ts-ignore: decorator
@inline function get(base: usize, stride: usize, field: i32, i: i32): v128 {
  return v128.load(base + <usize>field * stride + (<usize>i << 2));
}
// @ts-ignore: decorator
@inline function read(pointer: usize, each: i32, i: i32): v128 {
  return v128.load(pointer + (<usize>(i * each) << 2));
}
// @ts-ignore: decorator
@inline function sum(sums: usize, which: i32, i: i32, value: v128): void {
  const at = sums + <usize>(which << 11) + (<usize>i << 2);
  v128.store(at, add(v128.load(at), value));
}
// @ts-ignore: decorator
@inline function one(): v128 { return v128.load(CONSTANTS); }
/** (1 - r² / reach²)², 0 beyond the reach; `inverse` is 1 / reach², 0 for no limit. */
// @ts-ignore: decorator
@inline function fade(squared: v128, inverse: v128): v128 {
  const left = most(sub(one(), mul(squared, inverse)), all(0));
  return mul(left, left);
}

// @ts-ignore: decorator
@inline function pullTo(sums: usize, i: i32, dx: v128, dy: v128, dz: v128, strength: v128, near: v128, inverse: v128): void {
  const squared = dot3(dx, dy, dz, dx, dy, dz);
  const pull = div(mul(strength, fade(squared, inverse)), root(add(squared, near)));
  sum(sums, 0, i, mul(dx, pull));
  sum(sums, 1, i, mul(dy, pull));
  sum(sums, 2, i, mul(dz, pull));
}

function attraction(
  base: usize, stride: usize, from: i32, to: i32, sums: usize, s: usize, each: i32,
  x: f32, y: f32, z: f32, near: f32, inverse: f32,
): void {
  const xs = all(x);
  const ys = all(y);
  const zs = all(z);
  const nears = all(near);
  const inverses = all(inverse);
  for (let i = from; i < to; i += 4) {
    const dx = sub(xs, get(base, stride, PX, i));
    const dy = sub(ys, get(base, stride, PY, i));
    const dz = sub(zs, get(base, stride, PZ, i));
    pullTo(sums, i, dx, dy, dz, read(s, each, i), nears, inverses);
  }
}

function vortex(
  base: usize, stride: usize, from: i32, to: i32, sums: usize,
  spin: usize, spinEach: i32, pull: usize, pullEach: i32, lift: usize, liftEach: i32,
  x: f32, y: f32, z: f32, axisX: f32, axisY: f32, axisZ: f32, near: f32, inverse: f32,
): void {
  const nx = all(axisX);
  const ny = all(axisY);
  const nz = all(axisZ);
  const xs = all(x);
  const ys = all(y);
  const zs = all(z);
  const nears = all(near);
  const inverses = all(inverse);
  for (let i = from; i < to; i += 4) {
    const dx = sub(get(base, stride, PX, i), xs);
    const dy = sub(get(base, stride, PY, i), ys);
    const dz = sub(get(base, stride, PZ, i), zs);
    const tx = sub(mul(ny, dz), mul(nz, dy));
    const ty = sub(mul(nz, dx), mul(nx, dz));
    const tz = sub(mul(nx, dy), mul(ny, dx));
    const squared = dot3(tx, ty, tz, tx, ty, tz);
    const along = dot3(dx, dy, dz, nx, ny, nz);
    const weight = fade(squared, inverses);
    const over = div(weight, root(add(squared, nears)));
    const s = mul(read(spin, spinEach, i), over);
    const p = mul(read(pull, pullEach, i), over);
    const l = mul(read(lift, liftEach, i), weight);
    const up = add(l, mul(along, p));
    sum(sums, 0, i, add(sub(mul(tx, s), mul(dx, p)), mul(nx, up)));
    sum(sums, 1, i, add(sub(mul(ty, s), mul(dy, p)), mul(ny, up)));
    sum(sums, 2, i, add(sub(mul(tz, s), mul(dz, p)), mul(nz, up)));
  }
}

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

// @ts-ignore: decorator
@inline function field(x: v128, y: v128, z: v128, seed: v128): void {
  const fx = f32x4.floor(x);
  const fy = f32x4.floor(y);
  const fz = f32x4.floor(z);
  const px = lattice(fx, PRIME_X);
  const x0 = v128.xor(px, seed);
  const x1 = v128.xor(i32x4.add(px, integer(PRIME_X)), seed);
  const y0 = lattice(fy, PRIME_Y);
  const y1 = i32x4.add(y0, integer(PRIME_Y));
  const z0 = lattice(fz, PRIME_Z);
  const z1 = i32x4.add(z0, integer(PRIME_Z));
  const y0z0 = v128.xor(y0, z0);
  const y1z0 = v128.xor(y1, z0);
  const y0z1 = v128.xor(y0, z1);
  const y1z1 = v128.xor(y1, z1);
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

  const tx = sub(x, fx);
  const ty = sub(y, fy);
  const tz = sub(z, fz);
  const u = easing(tx);
  const v = easing(ty);
  const w = easing(tz);
  const du = easingSlope(tx);
  const dv = easingSlope(ty);
  const dw = easingSlope(tz);
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

function curl(
  base: usize, stride: usize, from: i32, to: i32, sums: usize, s: usize, each: i32,
  inverseSize: f32, driftX: f32, driftY: f32, driftZ: f32, blend: f32, seed: i32, next: i32,
): void {
  if (blend == 0) {
    for (let i = from; i < to; i += 4) {
      const x = sub(mul(get(base, stride, PX, i), all(inverseSize)), all(driftX));
      const y = sub(mul(get(base, stride, PY, i), all(inverseSize)), all(driftY));
      const z = sub(mul(get(base, stride, PZ, i), all(inverseSize)), all(driftZ));
      field(x, y, z, i32x4.splat(seed));
      const strength = read(s, each, i);
      sum(sums, 0, i, mul(curlX, strength));
      sum(sums, 1, i, mul(curlY, strength));
      sum(sums, 2, i, mul(curlZ, strength));
    }
    return;
  }
  for (let i = from; i < to; i += 4) {
    const x = sub(mul(get(base, stride, PX, i), all(inverseSize)), all(driftX));
    const y = sub(mul(get(base, stride, PY, i), all(inverseSize)), all(driftY));
    const z = sub(mul(get(base, stride, PZ, i), all(inverseSize)), all(driftZ));
    const strength = read(s, each, i);
    field(x, y, z, i32x4.splat(seed));
    const first = all(<f32>1 - blend);
    const cx = mul(curlX, first);
    const cy = mul(curlY, first);
    const cz = mul(curlZ, first);
    field(x, y, z, i32x4.splat(next));
    sum(sums, 0, i, mul(add(cx, mul(curlX, all(blend))), strength));
    sum(sums, 1, i, mul(add(cy, mul(curlY, all(blend))), strength));
    sum(sums, 2, i, mul(add(cz, mul(curlZ, all(blend))), strength));
  }
}

let words: usize = 0;
let scratch: usize = 0;
let first: i32 = 0;

// @ts-ignore: decorator
@inline function int(n: i32): i32 { return load<i32>(words + (<usize>n << 2)); }
// @ts-ignore: decorator
@inline function num(n: i32): f32 { return load<f32>(words + (<usize>n << 2)); }
// @ts-ignore: decorator
@inline function place(n: i32): usize {
  const at = int(n);
  return at >= 0 ? <usize>at : scratch + (<usize>(-1 - at) << 11) - (<usize>first << 2);
}

/** Runs a program of attraction (0), vortex (1) and curl (2) over particles `from` to `to`. */
export function run(program: usize, base: usize, stride: usize, from: i32, to: i32, ownScratch: usize): void {
  scratch = ownScratch;
  const calls = load<i32>(program);
  for (let i = from; i < to; i += BLOCK) {
    const end = min(i + BLOCK, to);
    first = i;
    memory.fill(scratch, 0, 4 * BLOCK * 4);
    const sums = scratch - (<usize>i << 2);
    words = program + 4;
    for (let call = 0; call < calls; call++) {
      switch (int(0)) {
        case 0: attraction(base, stride, i, end, sums, place(2), int(3), num(4), num(5), num(6), num(7), num(8)); break;
        case 1: vortex(
          base, stride, i, end, sums, place(2), int(3), place(4), int(5), place(6), int(7),
          num(8), num(9), num(10), num(11), num(12), num(13), num(14), num(15),
        ); break;
        case 2: curl(
          base, stride, i, end, sums, place(2), int(3), num(4), num(5), num(6), num(7), num(8), int(9), int(10),
        ); break;
      }
      words += <usize>int(1) << 2;
    }
  }
}
