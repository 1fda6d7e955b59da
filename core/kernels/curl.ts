import { PX, PY, PZ } from './layout.ts';
import { at, f, read, sum, type Block } from './twin.ts';

const float = new Float32Array(1);
const bits = new Int32Array(float.buffer);

/** A whole number as an integer: the bits of its sum with 1.5 × 2²³, which tell neighbours apart up to 2²² either way. */
function latticeOf(floor: number): number {
  float[0] = floor + 12582912;
  return bits[0]!;
}

/** Hash of a lattice point whose axes were multiplied by primes: two values of ten bits lie at 0 and 16, a third at 6. */
function corner(x: number, y: number, z: number): number {
  const h = x ^ y ^ z;
  const mixed = Math.imul(h ^ (h >>> 15), 0x846ca68b);
  return mixed ^ (mixed >>> 13);
}

const easing = (t: number): number => f(f(f(t * t) * t) * f(f(t * f(f(t * 6) - 15)) + 10));
/** Its slope, 30·t²·(t − 1)², over 512: the lattice's values are whole numbers 0 to 1023. */
function easingSlope(t: number): number {
  const s = f(t * f(t - 1));
  return f(f(0.05859375) * f(s * s));
}

/** A potential's slope along one axis: `d` × (along + byP·p + (byQ + byBoth·p)·q). */
const slope = (d: number, p: number, q: number, along: number, byP: number, byQ: number, byBoth: number): number =>
  f(d * f(f(along + f(byP * p)) + f(f(byQ + f(byBoth * p)) * q)));

/**
 * Writes the curl of three value-noise potentials at (x, y, z), in swirls: the derivatives are analytic, so the field
 * has no divergence (Bridson, Hourihan and Nordenstam, 2007, Curl-Noise for Procedural Fluid Flow).
 */
export function curlField(x: number, y: number, z: number, seed: number, out: Float32Array): void {
  const [fx, fy, fz] = [Math.floor(x), Math.floor(y), Math.floor(z)];
  const [tx, ty, tz] = [f(x - fx), f(y - fy), f(z - fz)];
  const [u, v, w] = [easing(tx), easing(ty), easing(tz)];
  const [du, dv, dw] = [easingSlope(tx), easingSlope(ty), easingSlope(tz)];
  const px = Math.imul(latticeOf(fx), 0x27d4eb2d);
  const x0 = px ^ seed;
  const x1 = ((px + 0x27d4eb2d) | 0) ^ seed;
  const y0 = Math.imul(latticeOf(fy), 0x165667b1);
  const y1 = (y0 + 0x165667b1) | 0;
  const z0 = Math.imul(latticeOf(fz), 0x1b873593);
  const z1 = (z0 + 0x1b873593) | 0;
  const ha = corner(x0, y0, z0);
  const hb = corner(x1, y0, z0);
  const hc = corner(x0, y1, z0);
  const hd = corner(x1, y1, z0);
  const he = corner(x0, y0, z1);
  const hf = corner(x1, y0, z1);
  const hg = corner(x0, y1, z1);
  const hh = corner(x1, y1, z1);
  let [cx, cy, cz] = [0, 0, 0];
  for (let component = 0; component < 3; component++) {
    const shift = component === 0 ? 0 : component === 1 ? 16 : 6;
    const value = (hash: number) => (hash >>> shift) & 1023;
    const [a, b, c, d] = [value(ha), value(hb), value(hc), value(hd)];
    const [e, p, g, h] = [value(he), value(hf), value(hg), value(hh)];
    const k4 = d - c - b + a;
    const k5 = g - c - e + a;
    const k6 = p - e - b + a;
    const k7 = h - g - p + e - k4;
    const dx = slope(du, v, w, b - a, k4, k6, k7);
    const dy = slope(dv, w, u, c - a, k5, k4, k7);
    const dz = slope(dw, u, v, e - a, k6, k5, k7);
    if (component === 0) {
      cy = dz;
      cz = dy;
    } else if (component === 1) {
      cx = dz;
      cz = f(dx - cz);
    } else {
      cx = f(dy - cx);
      cy = f(cy - dx);
    }
  }
  out[0] = cx;
  out[1] = cy;
  out[2] = cz;
}

const one = new Float32Array(3);
const two = new Float32Array(3);

/** Stirs particles by a curl field that drifts, and blends from one seed's field into the next one's. */
export function curl(
  block: Block,
  s: number,
  each: number,
  inverseSize: number,
  driftX: number,
  driftY: number,
  driftZ: number,
  blend: number,
  seed: number,
  next: number,
): void {
  const { f32, from, to } = block;
  const first = f(1 - blend);
  for (let i = from; i < to; i++) {
    const x = f(f(f32[at(block, PX, i)]! * inverseSize) - driftX);
    const y = f(f(f32[at(block, PY, i)]! * inverseSize) - driftY);
    const z = f(f(f32[at(block, PZ, i)]! * inverseSize) - driftZ);
    const strength = read(block, s, each, i);
    curlField(x, y, z, seed, one);
    if (blend !== 0) curlField(x, y, z, next, two);
    for (let axis = 0; axis < 3; axis++) {
      const stir = blend === 0 ? one[axis]! : f(f(one[axis]! * first) + f(two[axis]! * blend));
      sum(block, axis, i, f(stir * strength));
    }
  }
}
