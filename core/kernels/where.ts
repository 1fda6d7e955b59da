import { PX, PY, PZ } from './layout.ts';
import { at, dot3, draw, f, fade, most, read, root, setSum, summed, type Block } from './twin.ts';

/** How a strength falls off toward the reach of a force, in the order the kernel numbers them. */
export const FALLOFFS = ['soft', 'even slope', 'none', 'by the square'] as const;
export type Falloff = (typeof FALLOFFS)[number];

/** Share of the strength left at `r` = distance² / reach². */
export function fallen(r: number, falloff: number): number {
  if (falloff === 1) return f(most(f(1 - root(r)), 0));
  if (falloff === 2) return r < 1 ? 1 : 0;
  if (falloff === 3) return r < 1 ? f(1 / f(1 + f(15 * r))) : 0;
  return fade(r, 1);
}

/** Writes strengths that fall off from (x, y, z); `inverse` is 1 / reach². */
export function weigh(
  block: Block,
  out: number,
  s: number,
  each: number,
  x: number,
  y: number,
  z: number,
  inverse: number,
  falloff: number,
): void {
  const { f32, from, to } = block;
  for (let i = from; i < to; i++) {
    const dx = f(f32[at(block, PX, i)]! - x);
    const dy = f(f32[at(block, PY, i)]! - y);
    const dz = f(f32[at(block, PZ, i)]! - z);
    const r = f(dot3(dx, dy, dz, dx, dy, dz) * inverse);
    f32[out / 4 + i] = f(read(block, s, each, i) * fallen(r, falloff));
  }
}

/** Writes strengths of a share of the particles; the others' are 0. */
export function pick(block: Block, out: number, s: number, each: number, share: number, slot: number): void {
  for (let i = block.from; i < block.to; i++)
    block.f32[out / 4 + i] = draw(block, i, slot) < share ? read(block, s, each, i) : 0;
}

/** Puts the accelerations summed so far aside, and begins anew. */
export function setAside(block: Block, x: number, y: number, z: number): void {
  for (let i = block.from; i < block.to; i++)
    [x, y, z].forEach((address, axis) => {
      block.f32[address / 4 + i] = summed(block, axis, i);
      setSum(block, axis, i, 0);
    });
}

/** Adds what was summed since to what was put aside, where it is at least as large as a threshold. */
export function exceed(block: Block, x: number, y: number, z: number, squared: number): void {
  for (let i = block.from; i < block.to; i++) {
    const a = [0, 1, 2].map((axis) => summed(block, axis, i)) as [number, number, number];
    const isEnough = dot3(...a, ...a) >= squared;
    [x, y, z].forEach((address, axis) =>
      setSum(block, axis, i, f(read(block, address, 1, i) + (isEnough ? a[axis]! : 0))),
    );
  }
}
