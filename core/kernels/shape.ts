import { BIRTH_FRACTION, BIRTH_STEP, LIFE } from './layout.ts';
import { at, draw, f, least, most, root, speedSquared, type Block } from './twin.ts';

/** Cells of a table of what shapers make of a setting; it has one row more. */
export const CELLS = 512;

/** Seconds particle `i` had lived at the start of a step. */
export function secondsLived(block: Block, i: number, step: number, seconds: number): number {
  const steps = f(f(step - block.i32[at(block, BIRTH_STEP, i)]!) - block.f32[at(block, BIRTH_FRACTION, i)]!);
  return f(most(steps, 0) * seconds);
}

/** Age 0 to 1 at the start of a step; `standing` for what lives as long as the effect does. */
export function ageAt(block: Block, i: number, step: number, seconds: number, standing: number): number {
  const life = block.f32[at(block, LIFE, i)]!;
  return life === 0 ? standing : least(f(secondsLived(block, i, step, seconds) / life), 1);
}

/** Row and share between rows at `x` 0 to 1. */
export function rowAt(x: number): { row: number; t: number } {
  const place = f(least(x, 1) * CELLS);
  const row = least(Math.floor(place), CELLS - 1);
  return { row, t: f(place - row) };
}

/**
 * Writes a setting: base × M(x) + A(x), held to its limits, by a table of pairs M, A over x = age or speed × `scaleX`,
 * between which it is linear. The base is `low` + `width` × a draw.
 */
export function shape(
  block: Block,
  out: number,
  table: number,
  bySpeed: number,
  scaleX: number,
  low: number,
  width: number,
  slot: number,
  lowest: number,
  highest: number,
  scale: number,
  step: number,
  seconds: number,
  standing: number,
): void {
  const { f32, from, to } = block;
  for (let i = from; i < to; i++) {
    const x = bySpeed ? f(root(speedSquared(block, i)) * scaleX) : ageAt(block, i, step, seconds, standing);
    const { row, t } = rowAt(x);
    const word = table / 4 + row * 2;
    const between = (column: number) =>
      f(f32[word + column]! + f(f(f32[word + 2 + column]! - f32[word + column]!) * t));
    const own = width === 0 ? low : f(low + f(draw(block, i, slot) * width));
    const value = most(least(f(f(own * between(0)) + between(1)), highest), lowest);
    f32[out / 4 + i] = f(value * scale);
  }
}
