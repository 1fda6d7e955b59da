import { CELLS } from '../../kernels/index.ts';
import { newReading, type Reading } from './reading.ts';
import type { NumberReader } from './numberReader.ts';

/** Bytes of the table of one number setting: a pair M, A at each of 513 places. */
export const NUMBER_TABLE_BYTES = (CELLS + 1) * 8;

/** What a table is made for: the lifetime its particles share, if they do, and what all share at one moment. */
export interface TableMoment {
  readonly life: number | null;
  readonly time: number;
  readonly around: Reading['around'];
  readonly effectTime: number;
  readonly stretchTime: number;
  readonly dials: Reading['dials'];
}

/** A reading at one place of a table. */
export function readingAt(reading: Reading, moment: TableMoment, input: 'age' | 'speed', x: number): Reading {
  reading.life = moment.life ?? 1;
  reading.time = moment.time;
  reading.around = moment.around;
  reading.effectTime = moment.effectTime;
  reading.stretchTime = moment.stretchTime;
  reading.dials = moment.dials;
  reading.age = input === 'age' ? x : 0;
  reading.speed = input === 'speed' ? x : 0;
  return reading;
}

/** Tables of settings that differ from particle to particle, in a world's memory; each is made when first asked for. */
export class Tables {
  readonly #buffer: ArrayBufferLike;
  readonly #address: number;
  readonly #most: number;
  readonly #kept = new Map<NumberReader, number>();
  readonly #reading = newReading();
  readonly #pair = new Float64Array(2);

  constructor(buffer: ArrayBufferLike, address: number, most: number) {
    this.#buffer = buffer;
    this.#address = address;
    this.#most = most;
  }

  /** Forgets all tables: the document has changed. */
  forget(): void {
    this.#kept.clear();
  }

  /** Address of a reader's table over `input`; one that hangs on the time is made anew. */
  addressOf(reader: NumberReader, input: 'age' | 'speed', moment: TableMoment): number {
    let n = this.#kept.get(reader);
    if (n !== undefined && !reader.isTimed) return this.#address + n * NUMBER_TABLE_BYTES;
    if (n === undefined) {
      n = this.#kept.size;
      if (n >= this.#most) throw new Error(`a world has room for ${this.#most} tables`);
      this.#kept.set(reader, n);
    }
    const address = this.#address + n * NUMBER_TABLE_BYTES;
    const out = new Float32Array(this.#buffer, address, (CELLS + 1) * 2);
    const width = input === 'speed' ? reader.lastSpeed : 1;
    for (let i = 0; i <= CELLS; i++) {
      reader.affineInto(readingAt(this.#reading, moment, input, (i / CELLS) * width), this.#pair);
      out[i * 2] = this.#pair[0]!;
      out[i * 2 + 1] = this.#pair[1]!;
    }
    return address;
  }
}
