import { DEATH_STEP, FLAGS, IS_DEAD } from '../layout';
import { get, whole } from './lanes';

/** Marks particles of `from` to `to` whose last step this is; writes their indices to `out` and returns how many. */
export function dying(base: usize, stride: usize, from: i32, to: i32, step: i32, out: usize): i32 {
  let found = 0;
  for (let i = from; i < to; i += 4) {
    const isOver = i32x4.le_s(get(base, stride, DEATH_STEP, i), whole(step));
    if (!v128.any_true(isOver)) continue;
    for (let k = i; k < min(i + 4, to); k++) {
      const word = <usize>k << 2;
      const flags = load<i32>(base + <usize>FLAGS * stride + word);
      if (load<i32>(base + <usize>DEATH_STEP * stride + word) > step || (flags & IS_DEAD)) continue;
      store<i32>(base + <usize>FLAGS * stride + word, flags | IS_DEAD);
      store<i32>(out + (<usize>found << 2), k);
      found++;
    }
  }
  return found;
}

/** Writes the indices of the living to `map`, then closes the gaps in every array; returns how many live. */
export function compact(base: usize, stride: usize, fields: i32, count: i32, map: usize): i32 {
  let living = 0;
  const flags = base + <usize>FLAGS * stride;
  for (let i = 0; i < count; i++) {
    store<i32>(map + (<usize>living << 2), i);
    living += load<i32>(flags + (<usize>i << 2)) & IS_DEAD ? 0 : 1;
  }
  let still = 0;
  while (still < living && load<i32>(map + (<usize>still << 2)) == still) still++;
  for (let field = 0; field < fields; field++) {
    const array = base + <usize>field * stride;
    for (let i = still; i < living; i++)
      store<i32>(array + (<usize>i << 2), load<i32>(array + (<usize>load<i32>(map + (<usize>i << 2)) << 2)));
  }
  return living;
}
