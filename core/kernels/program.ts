import { AX, AY, AZ, DRAG } from './layout.ts';
import type { KernelName, Kernels } from './kernels.ts';

/**
 * A step's kernel calls for one layer, as 32-bit words that threads read from shared memory:
 * calls, then for each its kernel's number, how many arguments, and the arguments as f32 or i32 by its signature.
 */
const NAMES: readonly KernelName[] = ['gravity', 'drag', 'attraction', 'vortex', 'curl', 'integrate'];

/** What each argument after (base, stride, from, to) is: an integer or a float. */
const SIGNATURES: Record<KernelName, string> = {
  gravity: 'ii',
  drag: 'ii',
  attraction: 'iifffff',
  vortex: 'iiiiiiffffffff',
  curl: 'iiffii',
  integrate: 'if',
};

/** Fields that a step's forces add up in. */
const SUMS = [AX, AY, AZ, DRAG];

export const PROGRAM_WORDS = 4096;

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

  call(name: KernelName, values: readonly number[]): void {
    const signature = SIGNATURES[name];
    if (values.length !== signature.length)
      throw new Error(`${name} takes ${signature.length} values, not ${values.length}`);
    if (this.#next + values.length + 1 > PROGRAM_WORDS) throw new Error('too many forces in one layer');
    this.#i32[this.#next++] = NAMES.indexOf(name);
    for (let i = 0; i < values.length; i++) {
      if (signature[i] === 'i') this.#i32[this.#next++] = values[i]!;
      else this.#f32[this.#next++] = values[i]!;
    }
    this.#i32[0]!++;
  }
}

/** Clears the sums of particles `from` to `to`, then runs a program over them. The layer lies at `base`. */
export function runProgram(
  kernels: Kernels,
  buffer: ArrayBufferLike,
  address: number,
  base: number,
  stride: number,
  from: number,
  to: number,
): void {
  const i32 = new Int32Array(buffer, address, PROGRAM_WORDS);
  const f32 = new Float32Array(buffer, address, PROGRAM_WORDS);
  for (const field of SUMS) new Float32Array(buffer, base + field * stride + from * 4, to - from).fill(0);
  let next = 1;
  for (let call = i32[0]!; call > 0; call--) {
    const name = NAMES[i32[next++]!]!;
    const signature = SIGNATURES[name];
    const values: number[] = [base, stride, from, to];
    for (let i = 0; i < signature.length; i++, next++) values.push(signature[i] === 'i' ? i32[next]! : f32[next]!);
    (kernels[name] as (...values: number[]) => void)(...values);
  }
}
