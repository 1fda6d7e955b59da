import { Zip, ZipPassThrough } from 'fflate';
import type { FilmSettings } from '@jinx/core/formats';
import type { ShotLayer } from '@jinx/stage';
import type { EncodeJob } from '../encode.ts';
import type { Encoders } from '../encoders.ts';
import type { Sink } from '../sink.ts';
import type { Maker, Taken } from './maker.ts';

/** What a zip without its extension for large files can hold. */
const MOST_BYTES = 4_000_000_000;
/** Pictures that wait to be encoded or written: each takes as much memory as it has points. */
const MOST_WAITING = 3;

/** A zip to which files are added one after another, and which keeps none of them in memory. */
export class ZipStream {
  readonly #zip: Zip;
  readonly #sink: Sink;
  #fault: Error | null = null;

  constructor(sink: Sink) {
    this.#sink = sink;
    this.#zip = new Zip((error, piece) => {
      try {
        if (error) throw error;
        if (!this.#fault) sink.write(piece);
      } catch (fault) {
        this.#fault ??= fault as Error;
      }
    });
  }

  /** @throws an error with a sentence where it becomes too large, or there is no more room. */
  add(name: string, bytes: Uint8Array): void {
    if (this.#sink.bytes + bytes.length > MOST_BYTES)
      throw new Error(
        'The zip would become larger than 4 GB, which many programs cannot open. Take fewer or smaller pictures.',
      );
    const file = new ZipPassThrough(name);
    this.#zip.add(file);
    file.push(bytes, true);
    this.#check();
  }
  end(): void {
    this.#zip.end();
    this.#check();
  }
  #check(): void {
    if (this.#fault) throw this.#fault;
  }
}

/** A sequence of PNG or EXR pictures in a zip. */
export class SequenceMaker implements Maker {
  readonly #settings: FilmSettings;
  readonly #name: string;
  readonly #zip: ZipStream;
  readonly #encoders: Encoders;
  readonly #waiting: Promise<void>[] = [];
  #written: Promise<void> = Promise.resolve();
  #fault: unknown = null;

  constructor(settings: FilmSettings, name: string, sink: Sink, encoders: Encoders) {
    [this.#settings, this.#name, this.#zip, this.#encoders] = [settings, name, new ZipStream(sink), encoders];
  }

  async take({ number, pixels, marks }: Taken): Promise<void> {
    const { whole, covering, added, factor } = pixels;
    const file = `${this.#name}.${String(number + 1).padStart(5, '0')}`;
    if (covering && added) {
      this.#add(`covering/${file}`, covering, null, null);
      this.#add(`added/${file}`, added, null, null);
      // Marks, and by how much it multiplies, are of all of it.
      if (marks || factor) this.#add(`whole/${file}`, whole, marks, factor);
    } else this.#add(file, whole, marks, factor);
    while (this.#waiting.length >= MOST_WAITING) await this.#waiting.shift();
    if (this.#fault) throw this.#fault as Error;
  }

  #add(file: string, layer: ShotLayer, marks: Taken['marks'], factor: ShotLayer | null): void {
    const { as, width, height, alpha, rate } = this.#settings;
    const job: EncodeJob =
      as === 'exr'
        ? { kind: 'exr', width, height, rate, layer, marks, factor }
        : { kind: 'png', width, height, alpha, layer };
    const encoded = this.#encoders.encode(job);
    const before = this.#written;
    this.#written = (async () => {
      await before;
      const bytes = await encoded;
      if (!this.#fault) this.#zip.add(`${file}.${job.kind}`, bytes);
    })().catch((error: unknown) => {
      this.#fault ??= error;
    });
    this.#waiting.push(this.#written);
  }

  async finish(): Promise<void> {
    await this.#written;
    if (this.#fault) throw this.#fault as Error;
    const { rate, from, width, height, alpha, as } = this.#settings;
    const about = { rate, from, width, height, ...(as === 'png' ? { alpha } : {}) };
    this.#zip.add(`${this.#name}.json`, new TextEncoder().encode(`${JSON.stringify(about, null, 1)}\n`));
    this.#zip.end();
  }

  close(): void {
    this.#waiting.length = 0;
  }
}
