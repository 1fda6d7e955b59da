import type { ColourReader } from './colourReader.ts';
import type { Reading } from './reading.ts';

/** Red, green or blue of a colour, linear, as one number that the stage draws with. */
export class ColourPart {
  readonly isShared: boolean;
  readonly #colour: ColourReader;
  readonly #part: 0 | 1 | 2;
  readonly #rgb = new Float64Array(3);

  constructor(colour: ColourReader, part: 0 | 1 | 2) {
    [this.#colour, this.#part] = [colour, part];
    this.isShared = colour.isShared;
  }

  read(reading: Reading): number {
    this.#colour.readInto(reading, this.#rgb);
    return this.#rgb[this.#part]!;
  }

  /** What it is for a particle that draws none. */
  middle(reading: Reading): number {
    return this.read(reading);
  }
}
