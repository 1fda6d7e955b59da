import {
  stretchedStops,
  type ColourDeclaration,
  type ColourSetting,
  type Effect,
  type Reads,
  type Shaper,
} from '../../document/index.ts';
import { draw, gradientInto, readyGradient, resolvedColour, slotOf, type ReadyGradient } from '../../maths/index.ts';
import type { Reading } from './reading.ts';
import { activeShapers, inputOf, isSharedInput, tableInputOf, widthIn } from './shapers.ts';

interface ColourStep {
  readonly reads: Reads;
  readonly combine: Shaper['combine'];
  readonly amount: number;
  readonly gradient: ReadyGradient;
  readonly isRelative: boolean;
  readonly isBand: false;
}

const stepOf = ({ reads, combine, amount }: Shaper, gradient: ReadyGradient): ColourStep => ({
  reads,
  combine,
  amount,
  gradient,
  isRelative: gradient.relative,
  isBand: false,
});

/** A colour setting ready to be read: linear red, green and blue. */
export class ColourReader {
  /** Linear red, green and blue of each colour the base may be. */
  readonly bases: Float64Array;
  readonly slot: number;
  /** True where each particle begins with a colour of its own, taken at birth. */
  readonly isTaken: boolean;
  /** True when its table is another at another time. */
  readonly isTimed: boolean;
  readonly #steps: readonly ColourStep[];
  readonly #readsSpeed: boolean;
  readonly #shape = new Float64Array(3);

  /** `isPassedOn` where particles may begin with a colour that a link gave them; `group` is the scale of the groups it stands in. */
  constructor(
    setting: ColourSetting,
    declaration: ColourDeclaration,
    name: string,
    effect: Pick<Effect, 'palette'>,
    { isPassedOn = false, group = 1 }: { readonly isPassedOn?: boolean; readonly group?: number } = {},
  ) {
    const base = setting.base;
    this.isTaken = (base.kind === 'taken' && !setting.muted) || isPassedOn;
    const colours =
      setting.muted || base.kind === 'taken'
        ? [{ hex: declaration.byDefault }]
        : base.kind === 'set'
          ? base.values
          : [base.value];
    this.bases = Float64Array.from(colours.flatMap((colour) => resolvedColour(effect.palette, colour)));
    this.slot = slotOf(name);
    this.#steps = (setting.muted ? [] : activeShapers(setting)).flatMap(({ item }) =>
      item.mapping.kind === 'gradient'
        ? [
            stepOf(
              item,
              readyGradient(stretchedStops(item.mapping.stops, widthIn(item.reads, group)), effect.palette),
            ),
          ]
        : [],
    );
    this.isTimed = this.#steps.some(({ reads }) => isSharedInput(reads));
    this.#readsSpeed = this.#steps.some(({ reads }) => reads.kind === 'speed');
  }

  /** True where a table over age serves; `life` is the lifetime all particles share, null where they differ. */
  isTabulated(life: number | null): boolean {
    return !this.#readsSpeed && tableInputOf(this.#steps, life) !== null;
  }

  /** Writes what shapers make of any base colour c: c × out[0..2] + out[3..5]. */
  affineInto(reading: Reading, out: Float64Array): void {
    for (let c = 0; c < 3; c++) {
      out[c] = 1;
      out[3 + c] = 0;
    }
    for (const step of this.#steps) {
      gradientInto(step.gradient, inputOf(step.reads, reading), reading.life, this.#shape);
      const amount = step.combine === 'replace' ? 1 : step.amount;
      for (let c = 0; c < 3; c++) {
        const shape = this.#shape[c]!;
        out[c]! *= step.combine === 'multiply' ? shape : 1 - amount;
        if (step.combine === 'multiply') out[3 + c]! *= shape;
        else out[3 + c]! += (shape - out[3 + c]!) * amount;
      }
    }
  }

  /** Writes the colour that a particle begins with by itself. */
  baseInto(key: number, out: Float64Array): void {
    const count = this.bases.length / 3;
    const base = count === 1 ? 0 : 3 * Math.floor(draw(key, this.slot) * count);
    for (let c = 0; c < 3; c++) out[c] = this.bases[base + c]!;
  }

  /** Reads the colour of a particle; `tints` holds what particles took at birth, `i` is the place of this one. */
  readInto(reading: Reading, out: Float64Array, tints?: readonly Float32Array[], i = 0): void {
    if (this.isTaken && tints) for (let c = 0; c < 3; c++) out[c] = tints[c]![i]!;
    else this.baseInto(reading.key, out);
    for (const step of this.#steps) {
      gradientInto(step.gradient, inputOf(step.reads, reading), reading.life, this.#shape);
      for (let c = 0; c < 3; c++) {
        const shape = this.#shape[c]!;
        if (step.combine === 'multiply') out[c]! *= shape;
        else if (step.combine === 'replace') out[c] = shape;
        else out[c]! += (shape - out[c]!) * step.amount;
      }
    }
  }
}
