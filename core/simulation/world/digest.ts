import { mix } from '../../maths/index.ts';

/** Running hash of 32-bit words: two lanes, each mixed with every word; 16 hexadecimal digits. */
export class Digest {
  #a = 0x6a09e667;
  #b = 0xbb67ae85;
  readonly #float = new Float32Array(1);
  readonly #word = new Uint32Array(this.#float.buffer);

  word(value: number): void {
    this.#a = mix(this.#a ^ value);
    this.#b = mix((this.#b + Math.imul(value, 0x9e3779b9)) ^ this.#a);
  }

  /** Takes a number as f32; −0 counts as 0. */
  number(value: number): void {
    this.#float[0] = value + 0;
    this.word(this.#word[0]!);
  }

  get text(): string {
    const hex = (value: number) => (value >>> 0).toString(16).padStart(8, '0');
    return hex(this.#a) + hex(this.#b);
  }
}
