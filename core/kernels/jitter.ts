import { KEY } from './layout.ts';
import { at, f, hash2, read, sum, type Block } from './twin.ts';

/** One of three numbers −1 to 1 that a hash holds. */
const part = (h: number, shift: number): number => f((((h >>> shift) & 1023) - 512) * 0.001953125);

/** Accelerates each particle its own way, blending from one moment's throw to the next one's. */
export function jitter(block: Block, s: number, each: number, blend: number, seed: number, next: number): void {
  for (let i = block.from; i < block.to; i++) {
    const key = block.i32[at(block, KEY, i)]!;
    const a = hash2(key, seed);
    const b = hash2(key, next);
    const strength = read(block, s, each, i);
    for (let axis = 0; axis < 3; axis++) {
      const first = part(a, axis * 10);
      sum(block, axis, i, f(f(first + f(f(part(b, axis * 10) - first) * blend)) * strength));
    }
  }
}
