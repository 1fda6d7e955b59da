import type { Random32 } from '../document/index.ts';

/** Random bits that are the same in every run: each call gives others. */
export function counter(): Random32 {
  let n = 1;
  return () => (n++ * 0x9e3779b1) >>> 0;
}
