import { frameBytes, FRAME_PARTS, NO_SIZES, RECORD_WORDS, type FrameSizes } from '../frames/frame.ts';
import { tripleBufferBytes } from '../frames/tripleBuffer.ts';
import { aligned, Arrays, HEAP, reserve, Scratch } from '../run/memory.ts';
import { Heap } from './heap.ts';
import { blockBytes, type Needs } from './needs.ts';

const scratchBytes = (largest: number, arrays: number): number =>
  aligned(Arrays.bytes(largest, arrays)) + aligned((largest + 1) * RECORD_WORDS * 4);

const sumOf = (a: FrameSizes, b: FrameSizes, sign = 1): FrameSizes => {
  const sum = { ...a };
  for (const part of FRAME_PARTS) sum[part] = a[part] + sign * b[part];
  return sum;
};

/** How much a world has room for. */
export interface WorldRoom {
  /** Bytes of the blocks of all instances. */
  readonly bytes: number;
  /** Arrays of scratch memory, and places of the largest population. */
  readonly arrays: number;
  readonly largest: number;
  readonly frame: FrameSizes;
}

/** The room that some instances need together. */
export function roomFor(all: readonly Needs[]): WorldRoom {
  return {
    bytes: all.reduce((sum, needs) => sum + blockBytes(needs) + 64, 0),
    arrays: Math.max(0, ...all.map(({ arrays }) => arrays)),
    largest: Math.max(4, ...all.map(({ largest }) => largest)),
    frame: all.reduce((sum, { frame }) => sumOf(sum, frame), NO_SIZES),
  };
}

/** The one memory of a world (run/memory.ts tells the order): blocks for its instances, scratch, frames. */
export class WorldMemory {
  readonly memory: WebAssembly.Memory;
  readonly scratch: Scratch;
  /** Where three frames lie, and of how many bytes each is; null without any. */
  readonly frames: { readonly address: number; readonly bytes: number } | null;
  readonly #heap: Heap;
  /** Where scratch memory ends, and what it has room for. */
  readonly #end: number;
  #largest: number;
  #arrays: number;
  readonly #frameRoom: number;
  #frame = NO_SIZES;

  /** @throws RangeError with a sentence when the machine will not give as much. */
  constructor(room: WorldRoom, options: { readonly shared?: boolean; readonly frames?: boolean }) {
    [this.#largest, this.#arrays] = [room.largest, room.arrays];
    const heapEnd = aligned(HEAP + room.bytes);
    this.#end = heapEnd + scratchBytes(room.largest, room.arrays);
    this.#frameRoom = frameBytes(room.frame);
    const bytes = aligned(this.#frameRoom);
    this.memory = reserve(this.#end + (options.frames ? tripleBufferBytes(bytes) : 0), options.shared ?? false);
    this.frames = options.frames ? { address: this.#end, bytes } : null;
    this.#heap = new Heap(HEAP, heapEnd);
    this.scratch = this.#laidOut(new Scratch(new Arrays(this.memory.buffer, 0, 4, 0), 0));
  }

  #laidOut(scratch: Scratch): Scratch {
    const at = this.#end - scratchBytes(this.#largest, this.#arrays);
    scratch.arrays = new Arrays(this.memory.buffer, at, this.#largest, this.#arrays);
    scratch.recordsAt = at + aligned(Arrays.bytes(this.#largest, this.#arrays));
    return scratch;
  }

  /** Room in frames is counted, not handed out: what all may write at once must fit. */
  get freeFrame(): number {
    return this.#frameRoom - frameBytes(this.#frame);
  }

  /** Reserves a block; null, and nothing is changed, where there is not room for it, for its scratch or for what it draws. */
  take(needs: Needs): number | null {
    const frame = sumOf(this.#frame, needs.frame);
    if (this.frames && frameBytes(frame) > this.#frameRoom) return null;
    const [largest, arrays] = [Math.max(this.#largest, needs.largest), Math.max(this.#arrays, needs.arrays)];
    const before = this.#end - scratchBytes(this.#largest, this.#arrays);
    const after = this.#end - scratchBytes(largest, arrays);
    if (after < before && !this.#heap.moveEnd(after)) return null;
    const at = this.#heap.take(blockBytes(needs));
    if (at === null) {
      this.#heap.moveEnd(before);
      return null;
    }
    [this.#largest, this.#arrays, this.#frame] = [largest, arrays, frame];
    if (after < before) this.#laidOut(this.scratch);
    return at;
  }

  /** Takes back what was reserved. */
  give(at: number, needs: Needs): void {
    this.#heap.give(at);
    this.#frame = sumOf(this.#frame, needs.frame, -1);
  }
}
