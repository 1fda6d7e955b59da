import {
  RIBBON_SETTINGS,
  shownOpacity,
  type ColourSetting,
  type Effect,
  type NumberSetting,
  type Ribbon,
} from '../../../document/index.ts';
import { ColourReader } from '../../values/colourReader.ts';
import { NumberReader } from '../../values/numberReader.ts';
import type { Reading } from '../../values/reading.ts';
import { JOINT_AGE, JOINT_ALONG, JOINT_COLOUR, JOINT_OPACITY, JOINT_WIDTH, JOINT_WORDS } from '../frame.ts';

/** What a ribbon is along its length: by what its width, its opacity and its colour are multiplied, from its head to its tail. */
export class RibbonProfile {
  readonly #width: NumberReader;
  readonly #opacity: NumberReader;
  readonly #colour: ColourReader;
  readonly #isPlain: boolean;
  readonly #rgb = new Float64Array(3);

  constructor({ kind, settings }: Ribbon, effect: Effect) {
    const table = RIBBON_SETTINGS[kind];
    const colour = settings.colour as ColourSetting;
    const opacity = shownOpacity(settings.opacity as NumberSetting, colour);
    this.#width = new NumberReader(settings.width as NumberSetting, table.width, 'ribbon/width', effect);
    this.#opacity = new NumberReader(opacity, table.opacity, 'ribbon/opacity', effect);
    this.#colour = new ColourReader(colour, table.colour, 'ribbon/colour', effect);
    const isWhole = ({ isConstant, low }: NumberReader) => isConstant && low === 100;
    this.#isPlain = isWhole(this.#width) && isWhole(this.#opacity) && this.#colour.isWhite;
  }

  /** Changes joints that were written from word `at` on, for the particle that a reading tells of. With `keepsWidth` they stay as wide as they are. */
  apply(f32: Float32Array, at: number, count: number, reading: Reading, keepsWidth: boolean): void {
    if (this.#isPlain) return;
    const { age } = reading;
    const rgb = this.#rgb;
    for (let n = 0; n < count; n++) {
      const o = at + n * JOINT_WORDS;
      reading.along = 1 - f32[o + JOINT_ALONG]!;
      reading.age = f32[o + JOINT_AGE]!;
      if (!keepsWidth) f32[o + JOINT_WIDTH]! *= this.#width.read(reading) / 100;
      f32[o + JOINT_OPACITY]! *= this.#opacity.read(reading) / 100;
      this.#colour.readInto(reading, rgb);
      for (let c = 0; c < 3; c++) f32[o + JOINT_COLOUR + c]! *= rgb[c]!;
    }
    reading.age = age;
    reading.along = 0;
  }
}
