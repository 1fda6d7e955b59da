// Runs a program (../program.ts) over the particles of a layer, a block at a time, so that what one call has written
// is still near when the next one reads it.
import { BLOCK } from '../layout';
import { callKernel } from './generated/calls';
import { int, setCall, startBlock } from './words';

export function run(program: usize, base: usize, stride: usize, from: i32, to: i32, scratch: usize): void {
  const calls = load<i32>(program);
  for (let i = from; i < to; i += BLOCK) {
    const end = min(i + BLOCK, to);
    memory.fill(scratch, 0, 4 * BLOCK * 4);
    startBlock(i, scratch);
    const sums = scratch - (<usize>i << 2);
    let words = program + 4;
    for (let call = 0; call < calls; call++) {
      setCall(words);
      callKernel(int(0), base, stride, i, end, sums);
      words += <usize>int(1) << 2;
    }
  }
}
