import { PROGRAM_WORDS } from '../kernels/index.ts';

/**
 * How a world's memory is laid out (byte addresses):
 *
 * | from   | what                                                                   |
 * | 1024   | the crew's control words (crew.ts)                                     |
 * | 8192   | the program of the layer being stepped (kernels/program.ts)            |
 * | 32768  | constants: 2048 groups of one value written four times                 |
 * | 65536  | the layers' populations, one block each (kernels/layout.ts)            |
 * | then   | strengths: one array of the largest capacity for each varying strength |
 */
export const CONTROL = 1024;
export const PROGRAM = 8192;
const CONSTANTS = 32768;
const CONSTANT_GROUPS = 2048;
export const POPULATIONS = 65536;

const PAGE = 65536;

if (PROGRAM + PROGRAM_WORDS * 4 > CONSTANTS) throw new Error('the program runs into the constants');

/** A WebAssembly memory of fixed size. @throws RangeError with a sentence when the machine will not give it. */
export function reserve(bytes: number, shared: boolean): WebAssembly.Memory {
  const pages = Math.ceil(bytes / PAGE);
  try {
    return new WebAssembly.Memory({ initial: pages, maximum: pages, shared });
  } catch {
    throw new RangeError(
      `${Math.ceil(bytes / 1048576)} MB for this budget could not be had: lower the layers' caps or the budget`,
    );
  }
}

/** Hands out places for values that are the same for all particles of a step. */
export class Constants {
  readonly #f32: Float32Array;
  #next = 0;

  constructor(buffer: ArrayBufferLike) {
    this.#f32 = new Float32Array(buffer, CONSTANTS, CONSTANT_GROUPS * 4);
  }

  start(): void {
    this.#next = 0;
  }

  /** Address of `value` written four times. */
  put(value: number): number {
    if (this.#next >= CONSTANT_GROUPS) throw new Error('too many forces in one layer');
    const at = this.#next++ * 4;
    this.#f32.fill(value, at, at + 4);
    return CONSTANTS + at * 4;
  }
}
