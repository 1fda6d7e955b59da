import { Frame } from './frame.ts';

/**
 * Three frames in shared memory: the writer always has one to write and the reader always the newest complete one, and
 * neither ever waits. One control word holds which frame lies in the middle, and FRESH when it was not yet read.
 */
const FRESH = 4;
const INDEX = 3;

export interface TripleBuffer {
  readonly control: Int32Array;
  readonly frames: readonly [Frame, Frame, Frame];
}

const CONTROL_BYTES = 64;

/** Bytes for three frames of so many bytes. */
export const tripleBufferBytes = (bytes: number): number => CONTROL_BYTES + 3 * bytes;

/** Views of {@link tripleBufferBytes} of a buffer, from `address` on: made by both sides over the same memory. */
export function tripleBuffer(buffer: ArrayBufferLike, bytes: number, address = 0): TripleBuffer {
  const frame = (index: number) => new Frame(buffer, address + CONTROL_BYTES + index * bytes, bytes);
  return { control: new Int32Array(buffer, address, 4), frames: [frame(0), frame(1), frame(2)] };
}

/** The writer's end. Frame 0 is its own at first, 1 lies in the middle, 2 is the reader's. */
export class FrameWriter {
  readonly #triple: TripleBuffer;
  #own = 0;

  constructor(triple: TripleBuffer) {
    this.#triple = triple;
    Atomics.store(triple.control, 0, 1);
  }

  /** The frame to write into; publish it when it is whole. */
  get frame(): Frame {
    return this.#triple.frames[this.#own]!;
  }

  publish(): void {
    this.#own = Atomics.exchange(this.#triple.control, 0, this.#own | FRESH) & INDEX;
  }
}

/** The reader's end. */
export class FrameReader {
  readonly #triple: TripleBuffer;
  #own = 2;
  #hasRead = false;

  constructor(triple: TripleBuffer) {
    this.#triple = triple;
  }

  /** The newest frame; null until the first is published. It stays whole until the next call. */
  newest(): Frame | null {
    if (Atomics.load(this.#triple.control, 0) & FRESH) {
      this.#own = Atomics.exchange(this.#triple.control, 0, this.#own) & INDEX;
      this.#hasRead = true;
    }
    return this.#hasRead ? this.#triple.frames[this.#own]! : null;
  }
}
