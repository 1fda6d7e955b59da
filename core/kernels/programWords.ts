/** What a call reads for each particle: an address, and 1 where a value stands there for each, 0 where one serves all. */
export interface Value {
  readonly address: number;
  readonly each: number;
}

/** Three numbers: a place, a way, three addresses. */
export type Three = Readonly<ArrayLike<number>>;

export const PROGRAM_WORDS = 4096;

/** The words of a step's program for one layer: how many calls, then for each its number, its length in words, its values. */
export class ProgramWords {
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

  /** Begins with a call, by its number, of so many values. @throws Error where there is no room for it. */
  begin(call: number, values: number): void {
    if (this.#next + values + 2 > PROGRAM_WORDS) throw new Error('too many forces in one layer');
    this.#i32[this.#next++] = call;
    this.#i32[this.#next++] = values + 2;
    this.#i32[0]!++;
  }

  /** An integer, or an address. */
  int(value: number): void {
    this.#i32[this.#next++] = value;
  }

  num(value: number): void {
    this.#f32[this.#next++] = value;
  }

  ints(values: Three): void {
    for (let axis = 0; axis < 3; axis++) this.#i32[this.#next++] = values[axis]!;
  }

  nums(values: Three): void {
    for (let axis = 0; axis < 3; axis++) this.#f32[this.#next++] = values[axis]!;
  }

  value({ address, each }: Value): void {
    this.#i32[this.#next++] = address;
    this.#i32[this.#next++] = each;
  }
}
