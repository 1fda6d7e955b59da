import { AY } from '../layout';
import { get, put, strengthAt, sub } from './lanes';

export function gravity(base: usize, stride: usize, from: i32, to: i32, strength: usize, each: i32): void {
  for (let i = from; i < to; i += 4)
    put(base, stride, AY, i, sub(get(base, stride, AY, i), strengthAt(strength, each, i)));
}
