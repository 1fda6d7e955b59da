import {
  groupFactor,
  type Effect,
  type NumberDeclaration,
  type NumberSetting,
  type Reads,
  type Shaper,
} from '../../document/index.ts';
import { curveAt, draw, fitToLife, readyCurve, slotOf, type ReadyCurve } from '../../maths/index.ts';
import type { Reading } from './reading.ts';
import { activeShapers, inGroup, inputOf, isSharedInput, tableInputOf, type TableInput } from './shapers.ts';

interface NumberStep {
  readonly reads: Reads;
  readonly combine: Shaper['combine'];
  readonly amount: number;
  readonly low: ReadyCurve;
  readonly high: ReadyCurve | null;
  readonly isRelative: boolean;
  readonly isBand: boolean;
  readonly slot: number;
}

/** A number setting ready to be read for any particle: its base, then its shapers, within the declared limits. */
export class NumberReader {
  readonly least: number;
  readonly most: number;
  readonly low: number;
  readonly high: number;
  readonly slot: number;
  /** What the groups it stands in make of its value, and whoever reads it. */
  readonly scale: number;
  /** True when every particle reads the same at one moment. */
  readonly isShared: boolean;
  /** True when it is the same at any time, for whoever reads it: dials alone shape it. */
  readonly isLevel: boolean;
  /** True when its table is another at another time. */
  readonly isTimed: boolean;
  readonly #steps: readonly NumberStep[];
  /** What it always is; null when it varies. */
  readonly #still: number | null;

  /** `name` tells this setting's random draws from others'; `group` is the scale of the groups it stands in; its value is `times` as much besides. */
  constructor(
    setting: NumberSetting,
    declaration: NumberDeclaration,
    name: string,
    effect: Pick<Effect, 'measures'>,
    { group = 1, times = 1 }: { readonly group?: number; readonly times?: number } = {},
  ) {
    this.least = declaration.least;
    this.most = declaration.most;
    this.slot = slotOf(name);
    this.scale = groupFactor(group, declaration.unit) * times;
    const plain = declaration.byDefault;
    const base = setting.base;
    if (setting.muted || base.kind === 'taken')
      [this.low, this.high] = typeof plain === 'number' ? [plain, plain] : plain;
    else if (base.kind === 'spread') [this.low, this.high] = [base.low, base.high];
    else this.low = this.high = base.kind === 'fixed' ? base.value : (effect.measures.byId[base.measure]?.value ?? 0);
    this.#steps = (setting.muted ? [] : activeShapers(setting)).flatMap(({ id, item }): NumberStep[] => {
      const mapping = item.mapping;
      if (mapping.kind === 'gradient') return [];
      const [low, high] = mapping.kind === 'curve' ? [mapping.curve, null] : [mapping.low, mapping.high];
      const lowReady = readyCurve(inGroup(low, item.reads, group));
      return [
        {
          reads: item.reads,
          combine: item.combine,
          amount: item.amount,
          low: lowReady,
          high: high && readyCurve(inGroup(high, item.reads, group)),
          isRelative: lowReady.relative,
          isBand: high !== null,
          slot: slotOf(`${name}/${id}`),
        },
      ];
    });
    this.#still = this.low === this.high && this.#steps.length === 0 ? this.#limited(this.low) : null;
    const isOne = this.low === this.high && this.#steps.every(({ isBand }) => !isBand);
    this.isShared = isOne && this.#steps.every(({ reads }) => isSharedInput(reads));
    this.isLevel = isOne && this.#steps.every(({ reads }) => reads.kind === 'dial');
    this.isTimed = this.#steps.some(({ reads }) => isSharedInput(reads));
  }

  /** The speed beyond which shapers by speed are level, in metres a second. */
  get lastSpeed(): number {
    let most = 1e-6;
    for (const { reads, low } of this.#steps)
      if (reads.kind === 'speed') most = Math.max(most, low.x[low.x.length - 1] ?? 0);
    return most;
  }

  /** True when it never changes at all. */
  get isConstant(): boolean {
    return this.#still !== null;
  }

  /** True where shapers change it. */
  get isShaped(): boolean {
    return this.#steps.length > 0;
  }

  /** What a table of it runs over; `life` is the lifetime all particles share, null where they differ. */
  tableInput(life: number | null): TableInput {
    return tableInputOf(this.#steps, life);
  }

  /** Writes what shapers make of any base: base × out[0] + out[1], before limits. Bands count by their lower curve. */
  affineInto(reading: Reading, out: Float64Array): void {
    out[0] = 1;
    out[1] = 0;
    for (const step of this.#steps) {
      fitToLife(step.low, reading.life);
      const shape = curveAt(step.low, inputOf(step.reads, reading));
      if (step.combine === 'multiply') {
        out[0]! *= shape;
        out[1]! *= shape;
      } else if (step.combine === 'add') out[1]! += shape;
      else {
        const amount = step.combine === 'replace' ? 1 : step.amount;
        out[0]! *= 1 - amount;
        out[1]! += (shape - out[1]!) * amount;
      }
    }
  }

  /** What a particle begins with, before shapers. */
  base(key: number): number {
    const drawn = this.high === this.low ? 0 : (this.high - this.low) * draw(key, this.slot);
    return (this.low + drawn) * this.scale;
  }

  read(reading: Reading): number {
    if (this.#still !== null) return this.#still;
    const drawn = this.high === this.low ? 0 : (this.high - this.low) * draw(reading.key, this.slot);
    return this.readFrom(this.low + drawn, reading);
  }

  /** What shapers make of a given beginning, within the limits. */
  readFrom(begun: number, reading: Reading): number {
    let value = begun;
    for (const step of this.#steps) {
      const x = inputOf(step.reads, reading);
      fitToLife(step.low, reading.life);
      let shape = curveAt(step.low, x);
      if (step.high) {
        fitToLife(step.high, reading.life);
        shape += (curveAt(step.high, x) - shape) * draw(reading.key, step.slot);
      }
      if (step.combine === 'multiply') value *= shape;
      else if (step.combine === 'add') value += shape;
      else if (step.combine === 'replace') value = shape;
      else value += (shape - value) * step.amount;
    }
    return this.#limited(value);
  }

  #limited(value: number): number {
    return Math.max(this.least, Math.min(this.most, value)) * this.scale;
  }
}
