import {
  pictureCount,
  Sheet,
  sheetLayout,
  sheetText,
  straighten,
  turnOver,
  writeFilmPng,
  type FilmSettings,
} from '@jinx/core/formats';
import type { Sink } from '../sink.ts';
import type { Maker, Taken } from './maker.ts';
import { ZipStream } from './sequence.ts';

/** A sheet of all pictures, and what tells how they lie in it. */
export class FlipbookMaker implements Maker {
  readonly #settings: FilmSettings;
  readonly #name: string;
  readonly #zip: ZipStream;
  readonly #sheet: Sheet;

  constructor(settings: FilmSettings, name: string, sink: Sink) {
    [this.#settings, this.#name, this.#zip] = [settings, name, new ZipStream(sink)];
    this.#sheet = new Sheet(sheetLayout({ ...settings, pictures: pictureCount(settings) }), settings);
  }

  take({ number, pixels }: Taken): Promise<void> {
    const { width, height, alpha } = this.#settings;
    const picture = pixels.whole.picture as Uint8Array<ArrayBuffer>;
    turnOver(picture, width, height);
    if (alpha === 'straight') straighten(picture, 255);
    this.#sheet.put(number, picture);
    return Promise.resolve();
  }

  finish(): Promise<void> {
    const { layout, pixels } = this.#sheet;
    if (this.#settings.alpha === 'straight') this.#sheet.fillColours();
    const file = `${this.#name}.png`;
    this.#zip.add(file, writeFilmPng(layout.width, layout.height, pixels));
    const text = sheetText(layout, this.#settings, pictureCount(this.#settings), [file]);
    this.#zip.add(`${this.#name}.json`, new TextEncoder().encode(text));
    this.#zip.end();
    return Promise.resolve();
  }
  close(): void {
    // Its memory goes with it.
  }
}
