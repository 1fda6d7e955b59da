import { CALLS, ProgramWriter } from './generated/calls.ts';
import { BLOCK } from './layout.ts';
import type { ProgramWords } from './programWords.ts';
import type { Block, TwinMemory } from './twin.ts';

export { ProgramWriter };
/** The methods by which calls are written, one each. */
export type Calls = Omit<ProgramWriter, keyof ProgramWords>;

/** What a program may call; an own name for each kernel that has a twin. */
export type CallName = (typeof CALLS)[number][0];
export const CALL_NAMES = CALLS.map(([name]) => name);

/** Address of a piece of scratch memory, for the values of a program. Slots 0 to 3 are the sums. */
export const scratchSlot = (slot: number): number => -1 - slot;

/** Runs a program over particles `from` to `to` of a layer at `base`, a block at a time. The twin of assembly/run.ts. */
export const run =
  ({ f32, i32 }: TwinMemory) =>
  (program: number, base: number, stride: number, from: number, to: number, scratch: number): void => {
    for (let start = from; start < to; start += BLOCK) {
      const block: Block = {
        f32,
        i32,
        base,
        stride,
        from: start,
        to: Math.min(start + BLOCK, to),
        sums: scratch - start * 4,
      };
      f32.fill(0, scratch / 4, scratch / 4 + 4 * BLOCK);
      let word = program / 4 + 1;
      for (let call = i32[program / 4]!; call > 0; call--) {
        const [, signature, twin] = CALLS[i32[word]!]!;
        const values = Array.from(signature, (type, n) => {
          const at = word + 2 + n;
          if (type === 'f') return f32[at]!;
          const value = i32[at]!;
          return type === 'p' && value < 0 ? scratch + (-1 - value) * BLOCK * 4 - start * 4 : value;
        });
        (twin as (block: Block, ...values: number[]) => void)(block, ...values);
        word += i32[word + 1]!;
      }
    }
  };
