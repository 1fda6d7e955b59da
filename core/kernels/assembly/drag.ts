import { DRAG } from '../layout';
import { add, get, put, strengthAt } from './lanes';

export function drag(base: usize, stride: usize, from: i32, to: i32, strength: usize, each: i32): void {
  for (let i = from; i < to; i += 4)
    put(base, stride, DRAG, i, add(get(base, stride, DRAG, i), strengthAt(strength, each, i)));
}
