import { f, most, read, root, speedSquared, sum, type Block } from './twin.ts';

/** Adds a strength (1/s) to the drag, which the integrator applies exactly. */
export function drag(block: Block, s: number, each: number): void {
  for (let i = block.from; i < block.to; i++) sum(block, 3, i, read(block, s, each, i));
}

const bits = new Int32Array(1);
const float = new Float32Array(bits.buffer);

/** Natural logarithm in single precision, of numbers from 1 up (by the series of (m − 1) / (m + 1)). */
export function logarithm(x: number): number {
  float[0] = x;
  const shifted = (bits[0]! - 0x3f3504f3) | 0;
  const e = f(shifted >> 23);
  bits[0] = (shifted & 0x007fffff) + 0x3f3504f3;
  const m = f(float[0]! - 1);
  const s = f(m / f(2 + m));
  const q = f(s * s);
  let p = f(0.22222222);
  p = f(f(p * q) + f(0.2857143));
  p = f(f(p * q) + f(0.4));
  p = f(f(p * q) + f(0.6666667));
  p = f(f(f(p * q) * s) + f(2 * s));
  return f(f(e * f(0.6931472)) + p);
}

/**
 * Drag that grows with speed: v′ = −s·|v|·v, s in 1/m. Over a step it leaves 1 / (1 + s·|v|·dt) of the speed, which is
 * exact where nothing else acts; the drag k that does so is ln(1 + s·|v|·dt) / dt.
 */
export function airDrag(block: Block, s: number, each: number, seconds: number, perSecond: number): void {
  for (let i = block.from; i < block.to; i++) {
    const x = f(f(most(read(block, s, each, i), 0) * root(speedSquared(block, i))) * seconds);
    sum(block, 3, i, f(logarithm(f(1 + x)) * perSecond));
  }
}
