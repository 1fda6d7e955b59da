import {
  groupFactor,
  listed,
  READS_LAW,
  stretchedCurve,
  stretchedStops,
  type ColourDeclaration,
  type ColourSetting,
  type Curve,
  type Effect,
  type NumberDeclaration,
  type NumberSetting,
  type Reads,
  type Shaper,
} from '../document/index.ts';
import type { Channels } from './channels.ts';
import type { EffectClock } from './clock.ts';
import {
  curveAt,
  draw,
  fitToLife,
  gradientInto,
  readyCurve,
  readyGradient,
  resolvedColour,
  slotOf,
  type ReadyCurve,
  type ReadyGradient,
} from '../maths/index.ts';

/** What shapers may read of one particle at one moment. Reused from particle to particle. */
export interface Reading {
  key: number;
  /** 0 at birth to 1 at death. */
  age: number;
  /** Lifetime in seconds. */
  life: number;
  /** Metres a second. */
  speed: number;
  /** Metres travelled since its birth. */
  distance: number;
  /** Place on the time sheet, 0..1. */
  effectTime: number;
  /** Place within the present stretch, 0..1. */
  stretchTime: number;
  /** The channels its layer has, if any; with what it began, where that is kept, and its place there. */
  channels: Channels | null;
  begun: readonly Float32Array[];
  place: number;
  /** Each dial's value as a share of its range. */
  dials: Readonly<Record<string, number>>;
}

const NONE: readonly Float32Array[] = [];

export const newReading = (): Reading => ({
  key: 0,
  age: 0,
  life: 1,
  speed: 0,
  distance: 0,
  effectTime: 0,
  stretchTime: 0,
  channels: null,
  begun: NONE,
  place: 0,
  dials: {},
});

/** Sets what all particles share at a time of the effect. */
export function setTime(
  reading: Pick<Reading, 'effectTime' | 'stretchTime'>,
  clock: Pick<EffectClock, 'share' | 'stretchShare'>,
  time: number,
): void {
  reading.effectTime = clock.share(time);
  reading.stretchTime = clock.stretchShare(time);
}

/** Ways of combining act in this order, and by id within one way, so that the order on screen changes nothing. */
const COMBINING_ORDER = { replace: 0, blend: 1, multiply: 2, add: 3 } as const;

function activeShapers(setting: { shapers: NumberSetting['shapers'] }): { id: string; item: Shaper }[] {
  return listed(setting.shapers)
    .filter(({ item }) => !item.muted)
    .sort((a, b) => COMBINING_ORDER[a.item.combine] - COMBINING_ORDER[b.item.combine] || (a.id < b.id ? -1 : 1));
}

function inputOf(reads: Reads, reading: Reading): number {
  switch (reads.kind) {
    case 'age':
      return reading.age;
    case 'speed':
      return reading.speed;
    case 'effectTime':
      return reading.effectTime;
    case 'stretchTime':
      return reading.stretchTime;
    case 'distance':
      return reading.distance;
    case 'channel':
      return reading.channels?.read(reads.channel, reading) ?? 0;
    case 'dial':
      return reading.dials[reads.dial] ?? 0;
  }
}

/** How many times as far what is read goes in a group of a scale: speeds and distances grow with it. */
const widthIn = (reads: Reads, group: number): number => (READS_LAW[reads.kind].size === 1 ? group : 1);
const inGroup = (curve: Curve, reads: Reads, group: number): Curve => stretchedCurve(curve, widthIn(reads, group));

interface NumberStep {
  readonly reads: Reads;
  readonly combine: Shaper['combine'];
  readonly amount: number;
  readonly low: ReadyCurve;
  readonly high: ReadyCurve | null;
  readonly slot: number;
}

/** How one setting is tabulated: over age, over speed, or not at all. */
export type TableInput = 'age' | 'speed' | null;

const isSharedInput = (reads: Reads): boolean =>
  reads.kind === 'effectTime' || reads.kind === 'stretchTime' || reads.kind === 'dial';

/** What all steps that differ between particles read, if it is one thing that a table can run over. */
function tableInputOf(steps: readonly { reads: Reads; isRelative: boolean; isBand: boolean }[], life: number | null) {
  let input: TableInput = 'age';
  let isFirst = true;
  for (const { reads, isRelative, isBand } of steps) {
    if (isBand || (!isRelative && life === null)) return null;
    if (isSharedInput(reads)) continue;
    if (reads.kind !== 'age' && reads.kind !== 'speed') return null;
    if (!isFirst && reads.kind !== input) return null;
    input = reads.kind;
    isFirst = false;
  }
  return input;
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
      return [
        {
          reads: item.reads,
          combine: item.combine,
          amount: item.amount,
          low: readyCurve(inGroup(low, item.reads, group)),
          high: high && readyCurve(inGroup(high, item.reads, group)),
          slot: slotOf(`${name}/${id}`),
        },
      ];
    });
    this.#still = this.low === this.high && this.#steps.length === 0 ? this.#limited(this.low) : null;
  }

  /** True when every particle reads the same at one moment. */
  get isShared(): boolean {
    return this.low === this.high && this.#steps.every((step) => !step.high && isSharedInput(step.reads));
  }

  /** True when it never changes at all. */
  get isConstant(): boolean {
    return this.#still !== null;
  }

  /** True when it is the same at any time, for whoever reads it: dials alone shape it. */
  get isLevel(): boolean {
    return this.low === this.high && this.#steps.every(({ reads, high }) => reads.kind === 'dial' && !high);
  }

  /** True when its table is another at another time. */
  get isTimed(): boolean {
    return this.#steps.some((step) => isSharedInput(step.reads));
  }

  /** True where shapers change it. */
  get isShaped(): boolean {
    return this.#steps.length > 0;
  }

  /** What a table of it runs over; `life` is the lifetime all particles share, null where they differ. */
  tableInput(life: number | null): TableInput {
    const steps = this.#steps.map(({ reads, low, high }) => ({
      reads,
      isRelative: low.relative,
      isBand: high !== null,
    }));
    return tableInputOf(steps, life);
  }

  /** The speed beyond which shapers by speed are level, in metres a second. */
  get lastSpeed(): number {
    return this.#steps.reduce(
      (most, { reads, low }) => (reads.kind === 'speed' ? Math.max(most, low.x[low.x.length - 1] ?? 0) : most),
      1e-6,
    );
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

interface ColourStep {
  readonly reads: Reads;
  readonly combine: Shaper['combine'];
  readonly amount: number;
  readonly gradient: ReadyGradient;
}

/** A colour setting ready to be read: linear red, green and blue. */
export class ColourReader {
  /** Linear red, green and blue of each colour the base may be. */
  readonly bases: Float64Array;
  readonly slot: number;
  /** True where each particle begins with a colour of its own, taken at birth. */
  readonly isTaken: boolean;
  readonly #steps: readonly ColourStep[];
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
            {
              reads: item.reads,
              combine: item.combine,
              amount: item.amount,
              gradient: readyGradient(stretchedStops(item.mapping.stops, widthIn(item.reads, group)), effect.palette),
            },
          ]
        : [],
    );
  }

  get isTimed(): boolean {
    return this.#steps.some((step) => isSharedInput(step.reads));
  }

  /** True where a table over age serves; `life` is the lifetime all particles share, null where they differ. */
  isTabulated(life: number | null): boolean {
    const steps = this.#steps.map(({ reads, gradient }) => ({
      reads,
      isRelative: gradient.relative,
      isBand: false,
    }));
    return this.#steps.every(({ reads }) => reads.kind !== 'speed') && tableInputOf(steps, life) !== null;
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
