import { AX, AY, AZ, PX, PY, PZ } from '../layout';
import { add, all, get, mul, put, strengthAt, sub } from './lanes';

// Curl of the field last computed by `field`: an inlined function has only one result.
let curlX: v128 = f32x4.splat(0);
let curlY: v128 = f32x4.splat(0);
let curlZ: v128 = f32x4.splat(0);

// @ts-ignore: decorator
@inline function mix(x: v128): v128 {
  let h = v128.xor(x, i32x4.shr_u(x, 16));
  h = i32x4.mul(h, i32x4.splat(0x7feb352d));
  h = v128.xor(h, i32x4.shr_u(h, 15));
  h = i32x4.mul(h, i32x4.splat(0x846ca68b));
  return v128.xor(h, i32x4.shr_u(h, 16));
}

// @ts-ignore: decorator
@inline function value(h: v128, shift: i32): v128 {
  const bits = v128.and(i32x4.shr_u(h, shift), i32x4.splat(1023));
  return mul(f32x4.convert_i32x4_s(i32x4.sub(bits, i32x4.splat(512))), all(0.001953125));
}

// @ts-ignore: decorator
@inline function easing(t: v128): v128 {
  return mul(mul(mul(t, t), t), add(mul(t, sub(mul(t, all(6)), all(15))), all(10)));
}

// @ts-ignore: decorator
@inline function easingSlope(t: v128): v128 {
  const s = mul(t, sub(t, all(1)));
  return mul(all(30), mul(s, s));
}

function field(x: v128, y: v128, z: v128, seed: i32): void {
  const fx = f32x4.floor(x);
  const fy = f32x4.floor(y);
  const fz = f32x4.floor(z);
  const tx = sub(x, fx);
  const ty = sub(y, fy);
  const tz = sub(z, fz);
  const u = easing(tx);
  const v = easing(ty);
  const w = easing(tz);
  const du = easingSlope(tx);
  const dv = easingSlope(ty);
  const dw = easingSlope(tz);
  const x0 = i32x4.mul(i32x4.trunc_sat_f32x4_s(fx), i32x4.splat(0x27d4eb2d));
  const x1 = i32x4.add(x0, i32x4.splat(0x27d4eb2d));
  const y0 = i32x4.mul(i32x4.trunc_sat_f32x4_s(fy), i32x4.splat(0x165667b1));
  const y1 = i32x4.add(y0, i32x4.splat(0x165667b1));
  const z0 = v128.xor(i32x4.mul(i32x4.trunc_sat_f32x4_s(fz), i32x4.splat(0x1b873593)), i32x4.splat(seed));
  const z1 = v128.xor(
    i32x4.add(i32x4.mul(i32x4.trunc_sat_f32x4_s(fz), i32x4.splat(0x1b873593)), i32x4.splat(0x1b873593)),
    i32x4.splat(seed),
  );
  const ha = mix(v128.xor(v128.xor(x0, y0), z0));
  const hb = mix(v128.xor(v128.xor(x1, y0), z0));
  const hc = mix(v128.xor(v128.xor(x0, y1), z0));
  const hd = mix(v128.xor(v128.xor(x1, y1), z0));
  const he = mix(v128.xor(v128.xor(x0, y0), z1));
  const hf = mix(v128.xor(v128.xor(x1, y0), z1));
  const hg = mix(v128.xor(v128.xor(x0, y1), z1));
  const hh = mix(v128.xor(v128.xor(x1, y1), z1));
  const uv = mul(u, v);
  const vw = mul(v, w);
  const wu = mul(w, u);
  let cx = all(0);
  let cy = all(0);
  let cz = all(0);
  for (let component = 0; component < 3; component++) {
    const shift = component * 10;
    const a = value(ha, shift);
    const b = value(hb, shift);
    const c = value(hc, shift);
    const d = value(hd, shift);
    const e = value(he, shift);
    const f = value(hf, shift);
    const g = value(hg, shift);
    const h = value(hh, shift);
    const k4 = add(sub(sub(a, b), c), d);
    const k5 = add(sub(sub(a, c), e), g);
    const k6 = add(sub(sub(a, b), e), f);
    const k7 = add(sub(sub(sub(add(sub(add(b, c), a), e), d), f), g), h);
    const dx = mul(du, add(add(add(sub(b, a), mul(k4, v)), mul(k6, w)), mul(k7, vw)));
    const dy = mul(dv, add(add(add(sub(c, a), mul(k5, w)), mul(k4, u)), mul(k7, wu)));
    const dz = mul(dw, add(add(add(sub(e, a), mul(k6, u)), mul(k5, v)), mul(k7, uv)));
    if (component == 0) {
      cy = dz;
      cz = sub(cz, dy);
    } else if (component == 1) {
      cx = sub(cx, dz);
      cz = add(cz, dx);
    } else {
      cx = add(cx, dy);
      cy = sub(cy, dx);
    }
  }
  curlX = cx;
  curlY = cy;
  curlZ = cz;
}

export function curl(
  base: usize, stride: usize, from: i32, to: i32, strength: usize, each: i32,
  inverseSize: f32, blend: f32, seed: i32, nextSeed: i32,
): void {
  const first = all(<f32>1 - blend);
  const second = all(blend);
  for (let i = from; i < to; i += 4) {
    const x = mul(get(base, stride, PX, i), all(inverseSize));
    const y = mul(get(base, stride, PY, i), all(inverseSize));
    const z = mul(get(base, stride, PZ, i), all(inverseSize));
    field(x, y, z, seed);
    let cx = mul(curlX, first);
    let cy = mul(curlY, first);
    let cz = mul(curlZ, first);
    if (blend > 0) {
      field(x, y, z, nextSeed);
      cx = add(cx, mul(curlX, second));
      cy = add(cy, mul(curlY, second));
      cz = add(cz, mul(curlZ, second));
    }
    const s = strengthAt(strength, each, i);
    put(base, stride, AX, i, add(get(base, stride, AX, i), mul(cx, s)));
    put(base, stride, AY, i, add(get(base, stride, AY, i), mul(cy, s)));
    put(base, stride, AZ, i, add(get(base, stride, AZ, i), mul(cz, s)));
  }
}
