import { PX, PY, PZ } from '../layout';
import { add, all, choose, div, dot3, draw, fade, get, most, mul, one, read, root, sub, summed } from './lanes';

/** Writes strengths that fall off from a place: 0 softly, 1 evenly, 2 not at all up to the reach, 3 by the square. */
export function weigh(
  base: usize, stride: usize, from: i32, to: i32, out: usize, s: usize, each: i32,
  x: f32, y: f32, z: f32, inverse: f32, falloff: i32,
): void {
  for (let i = from; i < to; i += 4) {
    const dx = sub(get(base, stride, PX, i), all(x));
    const dy = sub(get(base, stride, PY, i), all(y));
    const dz = sub(get(base, stride, PZ, i), all(z));
    const r = mul(dot3(dx, dy, dz, dx, dy, dz), all(inverse));
    let weight = fade(r, one());
    if (falloff == 1) weight = most(sub(one(), root(r)), all(0));
    else if (falloff == 2) weight = choose(one(), all(0), f32x4.lt(r, one()));
    else if (falloff == 3) weight = choose(div(one(), add(one(), mul(all(15), r))), all(0), f32x4.lt(r, one()));
    v128.store(out + (<usize>i << 2), mul(read(s, each, i), weight));
  }
}

/** Writes strengths of a share of the particles; the others' are 0. */
export function pick(
  base: usize, stride: usize, from: i32, to: i32, out: usize, s: usize, each: i32, share: f32, slot: i32,
): void {
  for (let i = from; i < to; i += 4) {
    const isPicked = f32x4.lt(draw(base, stride, i, slot), all(share));
    v128.store(out + (<usize>i << 2), choose(read(s, each, i), all(0), isPicked));
  }
}

/** Puts the accelerations summed so far aside, and begins anew. */
export function setAside(from: i32, to: i32, sums: usize, x: usize, y: usize, z: usize): void {
  for (let i = from; i < to; i += 4) {
    v128.store(x + (<usize>i << 2), summed(sums, 0, i));
    v128.store(y + (<usize>i << 2), summed(sums, 1, i));
    v128.store(z + (<usize>i << 2), summed(sums, 2, i));
    v128.store(sums + (<usize>i << 2), all(0));
    v128.store(sums + 2048 + (<usize>i << 2), all(0));
    v128.store(sums + 4096 + (<usize>i << 2), all(0));
  }
}

/** Adds what was summed since to what was put aside, where it is at least as large as a threshold. */
export function exceed(from: i32, to: i32, sums: usize, x: usize, y: usize, z: usize, squared: f32): void {
  for (let i = from; i < to; i += 4) {
    const ax = summed(sums, 0, i);
    const ay = summed(sums, 1, i);
    const az = summed(sums, 2, i);
    const isEnough = f32x4.ge(dot3(ax, ay, az, ax, ay, az), all(squared));
    v128.store(sums + (<usize>i << 2), add(read(x, 1, i), choose(ax, all(0), isEnough)));
    v128.store(sums + 2048 + (<usize>i << 2), add(read(y, 1, i), choose(ay, all(0), isEnough)));
    v128.store(sums + 4096 + (<usize>i << 2), add(read(z, 1, i), choose(az, all(0), isEnough)));
  }
}
