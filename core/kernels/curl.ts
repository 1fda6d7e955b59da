import { AX, PX, PY, PZ } from './layout.ts';
import { at, f, type TwinMemory } from './twin.ts';

function mix(x: number): number {
  let h = x ^ (x >>> 16);
  h = Math.imul(h, 0x7feb352d);
  h ^= h >>> 15;
  h = Math.imul(h, 0x846ca68b);
  return h ^ (h >>> 16);
}

/** One of three values −1..1 that a lattice point's hash holds. */
const value = (h: number, shift: number): number => f((((h >>> shift) & 1023) - 512) * 0.001953125);
const easing = (t: number): number => f(f(f(t * t) * t) * f(f(t * f(f(t * 6) - 15)) + 10));
function easingSlope(t: number): number {
  const s = f(t * f(t - 1));
  return f(30 * f(s * s));
}

/**
 * Writes the curl of three value-noise potentials at (x, y, z), in swirls: the derivatives are analytic, so the field
 * has no divergence (Bridson, Hourihan and Nordenstam, 2007, Curl-Noise for Procedural Fluid Flow).
 */
export function curlField(x: number, y: number, z: number, seed: number, out: Float32Array): void {
  const [fx, fy, fz] = [Math.floor(x), Math.floor(y), Math.floor(z)];
  const [tx, ty, tz] = [f(x - fx), f(y - fy), f(z - fz)];
  const [u, v, w] = [easing(tx), easing(ty), easing(tz)];
  const [du, dv, dw] = [easingSlope(tx), easingSlope(ty), easingSlope(tz)];
  const x0 = Math.imul(fx | 0, 0x27d4eb2d);
  const x1 = (x0 + 0x27d4eb2d) | 0;
  const y0 = Math.imul(fy | 0, 0x165667b1);
  const y1 = (y0 + 0x165667b1) | 0;
  const plainZ = Math.imul(fz | 0, 0x1b873593);
  const z0 = plainZ ^ seed;
  const z1 = ((plainZ + 0x1b873593) | 0) ^ seed;
  const ha = mix(x0 ^ y0 ^ z0);
  const hb = mix(x1 ^ y0 ^ z0);
  const hc = mix(x0 ^ y1 ^ z0);
  const hd = mix(x1 ^ y1 ^ z0);
  const he = mix(x0 ^ y0 ^ z1);
  const hf = mix(x1 ^ y0 ^ z1);
  const hg = mix(x0 ^ y1 ^ z1);
  const hh = mix(x1 ^ y1 ^ z1);
  const [uv, vw, wu] = [f(u * v), f(v * w), f(w * u)];
  let [cx, cy, cz] = [0, 0, 0];
  for (let component = 0; component < 3; component++) {
    const shift = component * 10;
    const [a, b, c, d] = [value(ha, shift), value(hb, shift), value(hc, shift), value(hd, shift)];
    const [e, g5, g, h] = [value(he, shift), value(hf, shift), value(hg, shift), value(hh, shift)];
    const k4 = f(f(f(a - b) - c) + d);
    const k5 = f(f(f(a - c) - e) + g);
    const k6 = f(f(f(a - b) - e) + g5);
    const k7 = f(f(f(f(f(f(f(b + c) - a) + e) - d) - g5) - g) + h);
    const dx = f(du * f(f(f(f(b - a) + f(k4 * v)) + f(k6 * w)) + f(k7 * vw)));
    const dy = f(dv * f(f(f(f(c - a) + f(k5 * w)) + f(k4 * u)) + f(k7 * wu)));
    const dz = f(dw * f(f(f(f(e - a) + f(k6 * u)) + f(k5 * v)) + f(k7 * uv)));
    if (component === 0) {
      cy = dz;
      cz = f(cz - dy);
    } else if (component === 1) {
      cx = f(cx - dz);
      cz = f(cz + dx);
    } else {
      cx = f(cx + dy);
      cy = f(cy - dx);
    }
  }
  out[0] = cx;
  out[1] = cy;
  out[2] = cz;
}

/** Stirs particles by a curl field that blends from one seed's field into the next one's. */
export const curl = ({ f32 }: TwinMemory) => {
  const one = new Float32Array(3);
  const two = new Float32Array(3);
  return (
    base: number,
    stride: number,
    from: number,
    to: number,
    strength: number,
    each: number,
    inverseSize: number,
    blend: number,
    seed: number,
    nextSeed: number,
  ): void => {
    const first = f(1 - blend);
    for (let i = from; i < to; i++) {
      const x = f(f32[at(base, stride, PX, i)]! * inverseSize);
      const y = f(f32[at(base, stride, PY, i)]! * inverseSize);
      const z = f(f32[at(base, stride, PZ, i)]! * inverseSize);
      curlField(x, y, z, seed, one);
      if (blend > 0) curlField(x, y, z, nextSeed, two);
      const s = f32[strength / 4 + i * each]!;
      for (let axis = 0; axis < 3; axis++) {
        let c = f(one[axis]! * first);
        if (blend > 0) c = f(c + f(two[axis]! * blend));
        const a = at(base, stride, AX + axis, i);
        f32[a] = f(f32[a]! + f(c * s));
      }
    }
  };
};
