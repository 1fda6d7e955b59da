import { CALLS } from './generated/calls.ts';
import { BLOCK } from './layout.ts';
import type { Block, TwinMemory } from './twin.ts';

/** What a program may call; an own name for each kernel that has a twin. */
export type CallName = (typeof CALLS)[number][0];
export const CALL_NAMES = CALLS.map(([name]) => name);
type TwinOf<N extends CallName> = Extract<(typeof CALLS)[number], readonly [N, string, unknown]>[2];
/** The values of a call, as its twin names them. Addresses are of memory, or, below zero, of a piece of scratch memory. */
export type CallValues<N extends CallName> =
  Parameters<TwinOf<N>> extends [Block, ...infer Values extends number[]] ? Readonly<Values> : never;
const NUMBERS = Object.fromEntries(CALLS.map(([name], index) => [name, index])) as Record<CallName, number>;
/** What each value of a call is: an integer (i), a float (f), or an address (p). */
export const signatureOf = (name: CallName): string => CALLS[NUMBERS[name]]![1];

/** Address of a piece of scratch memory, for the values of a program. Slots 0 to 3 are the sums. */
export const scratchSlot = (slot: number): number => -1 - slot;

export const PROGRAM_WORDS = 4096;

/** Writes a step's calls for one layer: how many, then for each its number, its length in words, and its values. */
export class ProgramWriter {
  readonly #i32: Int32Array;
  readonly #f32: Float32Array;
  #next = 1;

  constructor(buffer: ArrayBufferLike, address: number) {
    this.#i32 = new Int32Array(buffer, address, PROGRAM_WORDS);
    this.#f32 = new Float32Array(buffer, address, PROGRAM_WORDS);
  }

  start(): void {
    this.#next = 1;
    this.#i32[0] = 0;
  }

  call<N extends CallName>(name: N, values: CallValues<N>): void {
    const signature = signatureOf(name);
    if (this.#next + values.length + 2 > PROGRAM_WORDS) throw new Error('too many forces in one layer');
    this.#i32[this.#next++] = NUMBERS[name];
    this.#i32[this.#next++] = values.length + 2;
    for (let i = 0; i < values.length; i++) {
      if (signature[i] === 'f') this.#f32[this.#next++] = values[i]!;
      else this.#i32[this.#next++] = values[i]!;
    }
    this.#i32[0]!++;
  }
}

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
