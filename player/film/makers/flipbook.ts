import {
  motionSheet,
  normalPicture,
  pictureCount,
  Sheet,
  sheetLayout,
  sheetText,
  turnOver,
  writeFilmPng,
  type FilmSettings,
} from '@jinx/core/formats';
import type { Sink } from '../sink.ts';
import { upright } from '../upright.ts';
import type { Maker, Taken } from './maker.ts';
import { ZipStream } from './sequence.ts';

/** A sheet of all pictures, sheets of how they move and face, and what tells how they lie in it. */
export class FlipbookMaker implements Maker {
  readonly #settings: FilmSettings;
  readonly #name: string;
  readonly #zip: ZipStream;
  readonly #colours: Sheet;
  /** One sheet at a time is made: what is wanted of the others is kept until then. */
  readonly #motions: Uint16Array[] = [];
  readonly #normals: Uint16Array[] = [];

  constructor(settings: FilmSettings, name: string, sink: Sink) {
    [this.#settings, this.#name, this.#zip] = [settings, name, new ZipStream(sink)];
    this.#colours = this.#newSheet();
  }

  #newSheet(): Sheet {
    return new Sheet(sheetLayout({ ...this.#settings, pictures: pictureCount(this.#settings) }), this.#settings);
  }

  take({ number, pixels, marks }: Taken): Promise<void> {
    const { height, alpha } = this.#settings;
    this.#colours.put(number, upright(pixels.whole, height, alpha === 'straight'));
    for (const [found, kept] of [
      [marks?.motion, this.#motions],
      [marks?.normal, this.#normals],
    ] as const) {
      if (!found) continue;
      turnOver(found, height);
      kept.push(found);
    }
    return Promise.resolve();
  }

  async #add(ending: string, { layout, pixels }: Sheet): Promise<string> {
    const file = `${this.#name}${ending}.png`;
    this.#zip.add(file, await writeFilmPng(layout.width, layout.height, pixels));
    return file;
  }

  async finish(): Promise<void> {
    if (this.#settings.alpha === 'straight') this.#colours.fillColours();
    const sheets: { colour: string; motion?: string; normal?: string } = {
      colour: await this.#add('', this.#colours),
    };
    let most: number | null = null;
    if (this.#motions.length > 0) {
      const sheet = this.#newSheet();
      ({ most } = motionSheet(sheet, this.#motions));
      sheets.motion = await this.#add('.motion', sheet);
    }
    if (this.#normals.length > 0) {
      const sheet = this.#newSheet();
      this.#normals.forEach((halves, cell) => sheet.put(cell, normalPicture(halves)));
      sheets.normal = await this.#add('.normal', sheet);
    }
    const text = sheetText(this.#colours.layout, this.#settings, pictureCount(this.#settings), sheets, most);
    this.#zip.add(`${this.#name}.json`, new TextEncoder().encode(text));
    this.#zip.end();
  }
  close(): void {
    this.#motions.length = this.#normals.length = 0;
  }
}
