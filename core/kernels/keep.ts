import { FX, PX } from './layout.ts';
import { at, type Block } from './twin.ts';

/** Keeps the present places of those before `until` as where the step is drawn from. */
export function keep(block: Block, until: number): void {
  const to = Math.min(block.to, until);
  for (let axis = 0; axis < 3; axis++)
    for (let i = block.from; i < to; i++) block.f32[at(block, FX + axis, i)] = block.f32[at(block, PX + axis, i)]!;
}
