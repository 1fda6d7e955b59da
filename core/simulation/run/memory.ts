import { layout, PROGRAM_WORDS } from '../../kernels/index.ts';

/**
 * How a world's memory is laid out (byte addresses):
 *
 * | from   | what                                                                        |
 * | 1024   | the kernels' own constants; below it is nothing, which their compiler relies on |
 * | 7168   | the crew's control words (crew.ts)                                          |
 * | 8192   | the program of the layer being stepped (kernels/program.ts)                 |
 * | 32768  | constants: 2048 groups of one value written four times                      |
 * | 65536  | scratch memory, a piece for each thread of a crew                           |
 * | 327680 | the heap: a block for each instance, with its populations (kernels/layout.ts), the tables of  |
 * |        | what shapers make of settings (values/tables.ts) and the dresses of its layers              |
 * | then   | scratch: arrays of one value a particle of the largest layer, and records for it            |
 * | then   | three frames, where the stage reads them (frames/tripleBuffer.ts)                           |
 */
export const CONTROL = 7168;
export const PROGRAM = 8192;
const CONSTANTS = 32768;
const CONSTANT_GROUPS = 2048;
export const SCRATCH = 65536;
export const MOST_THREADS = 8;
export const HEAP = SCRATCH + MOST_THREADS * layout.SCRATCH_BYTES;

const PAGE = 65536;

const LINE = 64;
/** The next address that is a whole number of 64 bytes: where blocks, tables and frames begin. */
export const aligned = (address: number): number => Math.ceil(address / LINE) * LINE;
/** The last such address up to one. */
export const alignedDown = (address: number): number => Math.floor(address / LINE) * LINE;

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

/** Arrays of one 32-bit value a particle, each large enough for any layer of a world. */
export class Arrays {
  readonly buffer: ArrayBufferLike;
  readonly #address: number;
  readonly #bytes: number;
  readonly count: number;

  static bytes(capacity: number, count: number): number {
    return Math.max(4, capacity) * 4 * count;
  }

  constructor(buffer: ArrayBufferLike, address: number, capacity: number, count: number) {
    this.buffer = buffer;
    this.#address = address;
    this.#bytes = Math.max(4, capacity) * 4;
    this.count = count;
  }

  address(n: number): number {
    if (n >= this.count) throw new Error(`a world has ${this.count} arrays, not ${n + 1}`);
    return this.#address + n * this.#bytes;
  }

  floats(n: number): Float32Array {
    return new Float32Array(this.buffer, this.address(n), this.#bytes / 4);
  }
}

/** Room that all layers of a world are stepped and drawn in by turns: nothing in it outlasts a step. */
export class Scratch {
  arrays: Arrays;
  /** Byte address of records for the largest layer, for what is not written straight into a frame. */
  recordsAt: number;

  constructor(arrays: Arrays, recordsAt: number) {
    [this.arrays, this.recordsAt] = [arrays, recordsAt];
  }

  /** Byte address of room for an index a particle. */
  get indicesAt(): number {
    return this.arrays.address(0);
  }
}
