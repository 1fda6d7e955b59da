// Runs a program (../program.ts) over the particles of a layer, a block at a time, so that what one call has written
// is still near when the next one reads it.
import { BLOCK } from '../layout';
import { attraction, attractionEach, attractionLine } from './attraction';
import { limit, orbit, shift } from './constraints';
import { curl } from './curl';
import { airDrag, drag } from './drag';
import { integrate } from './integrate';
import { jitter } from './jitter';
import { shape } from './shape';
import { shell } from './shell';
import { uniform } from './uniform';
import { vortex } from './vortex';
import { exceed, pick, setAside, weigh } from './where';

let words: usize = 0;
let scratch: usize = 0;
let first: i32 = 0;

// @ts-ignore: decorator
@inline function int(n: i32): i32 { return load<i32>(words + (<usize>n << 2)); }
// @ts-ignore: decorator
@inline function num(n: i32): f32 { return load<f32>(words + (<usize>n << 2)); }
/** An address, or, below zero, a piece of this thread's scratch memory laid so that particle `first` is its first. */
// @ts-ignore: decorator
@inline function place(n: i32): usize {
  const at = int(n);
  return at >= 0 ? <usize>at : scratch + (<usize>(-1 - at) << 11) - (<usize>first << 2);
}

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
        case 0: uniform(i, end, sums, place(2), int(3), num(4), num(5), num(6)); break;
        case 1: drag(i, end, sums, place(2), int(3)); break;
        case 2: airDrag(base, stride, i, end, sums, place(2), int(3), num(4), num(5)); break;
        case 3: attraction(base, stride, i, end, sums, place(2), int(3), num(4), num(5), num(6), num(7), num(8)); break;
        case 4: attractionLine(
          base, stride, i, end, sums, place(2), int(3), num(4), num(5), num(6), num(7), num(8), num(9), num(10), num(11), num(12),
        ); break;
        case 5: attractionEach(base, stride, i, end, sums, place(2), int(3), place(4), place(5), place(6), num(7), num(8)); break;
        case 6: vortex(
          base, stride, i, end, sums, place(2), int(3), place(4), int(5), place(6), int(7),
          num(8), num(9), num(10), num(11), num(12), num(13), num(14), num(15),
        ); break;
        case 7: curl(
          base, stride, i, end, sums, place(2), int(3), num(4), num(5), num(6), num(7), num(8), int(9), int(10),
        ); break;
        case 8: jitter(base, stride, i, end, sums, place(2), int(3), num(4), int(5), int(6)); break;
        case 9: shell(base, stride, i, end, sums, place(2), int(3), num(4), num(5), num(6), num(7), num(8), num(9), num(10)); break;
        case 10: weigh(base, stride, i, end, place(2), place(3), int(4), num(5), num(6), num(7), num(8), int(9)); break;
        case 11: pick(base, stride, i, end, place(2), place(3), int(4), num(5), int(6)); break;
        case 12: shape(
          base, stride, i, end, place(2), place(3), int(4), num(5), num(6), num(7), int(8), num(9), num(10), num(11),
          int(12), num(13), num(14),
        ); break;
        case 13: setAside(i, end, sums, place(2), place(3), place(4)); break;
        case 14: exceed(i, end, sums, place(2), place(3), place(4), num(5)); break;
        case 15: integrate(
          base, stride, i, end, sums, num(2), num(3), num(4), int(5), num(6), num(7), num(8), num(9), int(10), num(11),
        ); break;
        case 16: shift(
          base, stride, i, end, place(2), int(3), place(4), int(5), place(6), int(7),
          num(8), num(9), num(10), num(11), num(12), num(13), num(14), num(15), num(16), int(17), int(18), num(19),
        ); break;
        case 17: orbit(
          base, stride, i, end, place(2), int(3), place(4), int(5), int(6),
          num(7), num(8), num(9), num(10), num(11), num(12), place(13), int(14), num(15),
        ); break;
        case 18: limit(base, stride, i, end, place(2), int(3), place(4), int(5)); break;
      }
      words += <usize>int(1) << 2;
    }
  }
}
