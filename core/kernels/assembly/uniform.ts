import { all, mul, read, sum } from './lanes';

export function uniform(from: i32, to: i32, sums: usize, s: usize, each: i32, x: f32, y: f32, z: f32): void {
  for (let i = from; i < to; i += 4) {
    const strength = read(s, each, i);
    sum(sums, 0, i, mul(strength, all(x)));
    sum(sums, 1, i, mul(strength, all(y)));
    sum(sums, 2, i, mul(strength, all(z)));
  }
}
