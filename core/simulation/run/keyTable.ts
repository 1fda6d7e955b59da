import { mix } from '../../maths/index.ts';

/** Numbers by particle key: open addressing in room of its own that is used again, so that nothing is allocated in a step. */
export class KeyTable {
  #keys = new Uint32Array(64);
  /** −1 where nothing is. */
  #values = new Int32Array(64).fill(-1);

  /** Forgets everything, with room for so many keys. */
  clear(most: number): void {
    let size = this.#keys.length;
    while (size < most * 2) size *= 2;
    if (size > this.#keys.length) {
      this.#keys = new Uint32Array(size);
      this.#values = new Int32Array(size);
    }
    this.#values.fill(-1);
  }

  #place(key: number): number {
    const mask = this.#keys.length - 1;
    let at = mix(key) & mask;
    while (this.#values[at]! >= 0 && this.#keys[at] !== key) at = (at + 1) & mask;
    return at;
  }

  /** The number of a key; −1 without one. */
  get(key: number): number {
    return this.#values[this.#place(key)]!;
  }

  set(key: number, value: number): void {
    const at = this.#place(key);
    this.#keys[at] = key;
    this.#values[at] = value;
  }
}
