import { aligned, alignedDown } from '../run/memory.ts';

interface Gap {
  at: number;
  bytes: number;
}

/** Hands out blocks between two addresses, each where there is room first, and takes them back. */
export class Heap {
  /** What is free, by address; no two that touch. */
  readonly #gaps: Gap[];
  readonly #taken = new Map<number, number>();
  #end: number;

  constructor(start: number, end: number) {
    const at = aligned(start);
    this.#end = alignedDown(end);
    this.#gaps = this.#end > at ? [{ at, bytes: this.#end - at }] : [];
  }

  /** The address of a new block; null where no gap is as large. */
  take(bytes: number): number | null {
    const wanted = aligned(Math.max(1, bytes));
    const n = this.#gaps.findIndex((gap) => gap.bytes >= wanted);
    if (n < 0) return null;
    const gap = this.#gaps[n]!;
    const { at } = gap;
    gap.at += wanted;
    gap.bytes -= wanted;
    if (gap.bytes === 0) this.#gaps.splice(n, 1);
    this.#taken.set(at, wanted);
    return at;
  }

  /** Takes a block back. @throws Error when nothing was handed out there. */
  give(at: number): void {
    const bytes = this.#taken.get(at);
    if (bytes === undefined) throw new Error(`no block begins at ${at}`);
    this.#taken.delete(at);
    const after = this.#gaps.findIndex((gap) => gap.at > at);
    const n = after < 0 ? this.#gaps.length : after;
    this.#gaps.splice(n, 0, { at, bytes });
    this.#join(n);
    this.#join(n - 1);
  }

  #join(n: number): void {
    const [gap, next] = [this.#gaps[n], this.#gaps[n + 1]];
    if (!gap || !next || gap.at + gap.bytes !== next.at) return;
    gap.bytes += next.bytes;
    this.#gaps.splice(n + 1, 1);
  }

  /** Lets the heap end at another address. Returns false, and changes nothing, where a block lies beyond it. */
  moveEnd(end: number): boolean {
    const to = alignedDown(end);
    const last = this.#gaps.at(-1);
    const isFree = last !== undefined && last.at + last.bytes === this.#end;
    if (to >= this.#end) {
      if (isFree) last.bytes += to - this.#end;
      else if (to > this.#end) this.#gaps.push({ at: this.#end, bytes: to - this.#end });
    } else {
      if (!isFree || last.at > to) return false;
      last.bytes = to - last.at;
      if (last.bytes === 0) this.#gaps.pop();
    }
    this.#end = to;
    return true;
  }

  /** Bytes that are free, in however many gaps. */
  get free(): number {
    return this.#gaps.reduce((sum, { bytes }) => sum + bytes, 0);
  }
}
