import { f, read, sum, type Block } from './twin.ts';

/** Accelerates by a strength (m/s²) along (x, y, z). */
export function uniform(block: Block, s: number, each: number, x: number, y: number, z: number): void {
  for (let i = block.from; i < block.to; i++) {
    const strength = read(block, s, each, i);
    sum(block, 0, i, f(strength * x));
    sum(block, 1, i, f(strength * y));
    sum(block, 2, i, f(strength * z));
  }
}
