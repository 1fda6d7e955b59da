import {
  stretchedStops,
  type ColourDeclaration,
  type ColourSetting,
  type Effect,
  type Shaper,
} from '../../document/index.ts';
import {
  draw,
  gradientInto,
  linearOfOklabInto,
  oklabOf,
  readyGradient,
  resolvedColour,
  slotOf,
  type ReadyGradient,
  type Vec3,
} from '../../maths/index.ts';
import type { Reading } from './reading.ts';
import {
  activeShapers,
  amountOf,
  inputOf,
  readsParticle,
  readsShared,
  readyAmount,
  tableInputOf,
  widthIn,
  type Inputs,
} from './shapers.ts';
import { Weighted } from './weighted.ts';

interface ColourStep extends Inputs {
  readonly combine: Shaper['combine'];
  readonly amount: number;
  readonly gradient: ReadyGradient;
}

const stepOf = (shaper: Shaper, gradient: ReadyGradient, group: number): ColourStep => ({
  reads: shaper.reads,
  combine: shaper.combine,
  amount: shaper.amount,
  amountBy: readyAmount(shaper, group),
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
  /** Two ends in OKLab, between which each particle has its own. */
  readonly #between: readonly [Vec3, Vec3] | null;
  readonly #among: Weighted<number> | null;
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
    const ends = base.kind === 'spread' ? [base.low, base.high] : [];
    const colours =
      setting.muted || base.kind === 'taken'
        ? [{ hex: declaration.byDefault }]
        : base.kind === 'set'
          ? base.values.map(({ value }) => value)
          : base.kind === 'spread'
            ? [base.low]
            : [base.value];
    this.bases = Float64Array.from(colours.flatMap((colour) => resolvedColour(effect.palette, colour)));
    const [low, high] = setting.muted ? [] : ends.map((end) => oklabOf(resolvedColour(effect.palette, end)));
    this.#between = low && high ? [low, high] : null;
    const among =
      base.kind === 'set' && !setting.muted ? base.values.map(({ weight }, value) => ({ value, weight })) : [];
    this.#among = among.length > 1 ? new Weighted(among) : null;
    this.slot = slotOf(name);
    this.#steps = (setting.muted ? [] : activeShapers(setting)).flatMap(({ item }) =>
      item.mapping.kind === 'gradient'
        ? [
            stepOf(
              item,
              readyGradient(stretchedStops(item.mapping.stops, widthIn(item.reads, group)), effect.palette),
              group,
            ),
          ]
        : [],
    );
    this.isTimed = this.#steps.some(readsShared);
    this.#readsSpeed = this.#steps.some(
      ({ reads, amountBy }) => reads.kind === 'speed' || amountBy?.reads.kind === 'speed',
    );
  }

  /** True where a table over age serves; `life` is the lifetime all particles share, null where they differ. */
  isTabulated(life: number | null): boolean {
    const isPlain = this.#between === null && (this.#among?.isEven ?? true);
    return isPlain && !this.#readsSpeed && tableInputOf(this.#steps, life) !== null;
  }

  /** Whether it is white for every particle at any time. */
  get isWhite(): boolean {
    return this.isShared && this.#steps.length === 0 && this.bases.every((part) => part === 1);
  }

  /** Whether every particle reads the same at one moment. */
  get isShared(): boolean {
    return !this.isTaken && !this.#between && !this.#among && !this.#steps.some(readsParticle);
  }

  /** Writes what shapers make of any base colour c: c × out[0..2] + out[3..5]. */
  affineInto(reading: Reading, out: Float64Array): void {
    for (let c = 0; c < 3; c++) {
      out[c] = 1;
      out[3 + c] = 0;
    }
    for (const step of this.#steps) {
      gradientInto(step.gradient, inputOf(step.reads, reading), reading.life, this.#shape);
      const amount = amountOf(step, reading);
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
    if (this.#between) {
      const [low, high] = this.#between;
      const t = draw(key, this.slot);
      const at = (c: 0 | 1 | 2) => low[c] + (high[c] - low[c]) * t;
      return linearOfOklabInto(out, at(0), at(1), at(2));
    }
    const base = this.#among ? 3 * this.#among.indexOf(key, this.slot) : 0;
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
        else out[c]! += (shape - out[c]!) * amountOf(step, reading);
      }
    }
  }
}
