import { describe, expect, it } from 'vitest';
import type { Kernels } from '../../kernels/index.ts';
import { CrewError, runShared } from './crew.ts';
import { CONTROL } from './memory.ts';

const JOINED = 24;
const memory = () => new SharedArrayBuffer(CONTROL + 4096);
const wordsOf = (buffer: SharedArrayBuffer) => new Int32Array(buffer, CONTROL, 32);
/** Kernels that only note which particles they were given. */
function noting(whileRunning: () => void = () => undefined) {
  const stepped: number[] = [];
  const run = (_: number, __: number, ___: number, from: number, to: number) => {
    whileRunning();
    for (let i = from; i < to; i++) stepped.push(i);
  };
  return { kernels: { run } as unknown as Kernels, stepped };
}

describe('a job that helpers share', () => {
  it('is done by the conductor alone where no helper ever wakes', () => {
    const { kernels, stepped } = noting();
    runShared(kernels, memory(), 0, 4, 4096, 1, 0, 20);
    expect(stepped).toHaveLength(4096);
  });

  it('ends with an error, not in a wait without end, where a helper that joined is gone', () => {
    const buffer = memory();
    const { kernels } = noting(() => Atomics.store(wordsOf(buffer), JOINED, 1));
    expect(() => runShared(kernels, buffer, 0, 4, 4096, 1, 0, 20)).toThrow(CrewError);
  });
});
