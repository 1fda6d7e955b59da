import { attraction, attractionEach, attractionLine } from './attraction.ts';
import { limit, orbit, shift } from './constraints.ts';
import { curl } from './curl.ts';
import { airDrag, drag } from './drag.ts';
import { integrate } from './integrate.ts';
import { jitter } from './jitter.ts';
import { BLOCK } from './layout.ts';
import { shape } from './shape.ts';
import { shell } from './shell.ts';
import type { Block, TwinMemory } from './twin.ts';
import { uniform } from './uniform.ts';
import { vortex } from './vortex.ts';
import { exceed, pick, setAside, weigh } from './where.ts';

type Call = (block: Block, ...values: number[]) => void;

/**
 * What a program may call, in the order the interpreter of assembly/run.ts numbers them, and what each value is: an
 * integer (i), a float (f), or an address (p): of memory, or, below zero, of a piece of the thread's own scratch memory.
 */
const CALLS = [
  ['uniform', 'pifff', uniform],
  ['drag', 'pi', drag],
  ['airDrag', 'piff', airDrag],
  ['attraction', 'pifffff', attraction],
  ['attractionLine', 'pifffffffff', attractionLine],
  ['attractionEach', 'pipppff', attractionEach],
  ['vortex', 'pipipiffffffff', vortex],
  ['curl', 'pifffffii', curl],
  ['jitter', 'pifii', jitter],
  ['shell', 'pifffffff', shell],
  ['weigh', 'ppiffffi', weigh],
  ['pick', 'ppifi', pick],
  ['shape', 'ppifffifffiff', shape],
  ['setAside', 'ppp', setAside],
  ['exceed', 'pppf', exceed],
  ['integrate', 'fffiffffif', integrate],
  ['shift', 'pipipifffffffffiif', shift],
  ['orbit', 'pipiiffffffpif', orbit],
  ['limit', 'pipi', limit],
] as const satisfies readonly (readonly [string, string, unknown])[];

export type CallName = (typeof CALLS)[number][0];
export const CALL_NAMES = CALLS.map(([name]) => name);
const NUMBERS = Object.fromEntries(CALLS.map(([name], index) => [name, index])) as Record<CallName, number>;
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

  call(name: CallName, values: readonly number[]): void {
    const signature = signatureOf(name);
    if (values.length !== signature.length)
      throw new Error(`${name} takes ${signature.length} values, not ${values.length}`);
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
        (twin as Call)(block, ...values);
        word += i32[word + 1]!;
      }
    }
  };
