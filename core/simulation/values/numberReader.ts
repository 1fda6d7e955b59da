import {
  groupFactor,
  type Effect,
  type Given,
  type NumberDeclaration,
  type NumberSetting,
  type Reads,
  type Shaper,
} from '../../document/index.ts';
import { curveAt, draw, fitToLife, readyCurve, slotOf, type ReadyCurve } from '../../maths/index.ts';
import { newReading, type Reading } from './reading.ts';
import {
  activeShapers,
  amountOf,
  inGroup,
  inputOf,
  readsParticle,
  readsShared,
  readyAmount,
  tableInputOf,
  type Inputs,
  type TableInput,
} from './shapers.ts';
import { Weighted } from './weighted.ts';

interface NumberStep extends Inputs {
  readonly combine: Shaper['combine'];
  readonly amount: number;
  readonly low: ReadyCurve;
  readonly high: ReadyCurve | null;
  readonly slot: number;
}

/** What a base is: its lowest and highest, and what it is one of. */
interface ReadyBase {
  readonly low: number;
  readonly high: number;
  readonly set: Weighted<number> | null;
}

function readyBase(
  { base, muted }: NumberSetting,
  { byDefault }: NumberDeclaration,
  effect: Pick<Effect, 'measures'>,
): ReadyBase {
  const always = (value: number): ReadyBase => ({ low: value, high: value, set: null });
  if (muted || base.kind === 'taken')
    return typeof byDefault === 'number' ? always(byDefault) : { low: byDefault[0], high: byDefault[1], set: null };
  switch (base.kind) {
    case 'fixed':
      return always(base.value);
    case 'spread':
      return { low: base.low, high: base.high, set: null };
    case 'measure':
      return always(effect.measures.byId[base.measure]?.value ?? 0);
    case 'set': {
      const values = base.values.map(({ value }) => value);
      const [low, high] = [Math.min(...values), Math.max(...values)];
      return { low, high, set: low === high ? null : new Weighted(base.values) };
    }
  }
}

export interface NumberReaderOptions {
  /** The scale of the groups it stands in. */
  readonly group?: number;
  /** Its value is so many times as much besides. */
  readonly times?: number;
  /** Whether it is drawn by the lot of a particle, the upper bits of its key, as the stage draws. */
  readonly byLot?: boolean;
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
  /** What of where a particle is born it begins with; null: by itself. */
  readonly given: Given | null;
  readonly #steps: readonly NumberStep[];
  readonly #set: Weighted<number> | null;
  readonly #byLot: boolean;
  #bounds: { readonly dials: Reading['dials']; readonly range: readonly [number, number] } | null = null;
  /** What it always is; null when it varies. */
  readonly #still: number | null;

  /** `name` tells this setting's random draws from others'. */
  constructor(
    setting: NumberSetting,
    declaration: NumberDeclaration,
    name: string,
    effect: Pick<Effect, 'measures'>,
    { group = 1, times = 1, byLot = false }: NumberReaderOptions = {},
  ) {
    this.#byLot = byLot;
    this.least = declaration.least;
    this.most = declaration.most;
    this.slot = slotOf(name);
    this.scale = groupFactor(group, declaration.unit) * times;
    ({ low: this.low, high: this.high, set: this.#set } = readyBase(setting, declaration, effect));
    this.given = !setting.muted && setting.base.kind === 'taken' ? setting.base.from : null;
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
          amountBy: readyAmount(item, group),
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
    this.isShared = isOne && !this.#steps.some(readsParticle);
    this.isLevel = isOne && this.#steps.every((step) => inputKinds(step).every((kind) => kind === 'dial'));
    this.isTimed = this.#steps.some(readsShared);
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

  /** True where it is one of several values. */
  get isSet(): boolean {
    return this.#set !== null;
  }

  /** True where shapers change it. */
  get isShaped(): boolean {
    return this.#steps.length > 0;
  }

  /** What a table of it runs over; `life` is the lifetime all particles share, null where they differ. */
  tableInput(life: number | null): TableInput {
    return this.#set ? null : tableInputOf(this.#steps, life);
  }

  /** Whether any of its shapers reads something of a kind. */
  reads(kind: Reads['kind']): boolean {
    return this.#steps.some((step) => inputKinds(step).includes(kind));
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
        const amount = amountOf(step, reading);
        out[0]! *= 1 - amount;
        out[1]! += (shape - out[1]!) * amount;
      }
    }
  }

  /** What a particle begins with, before shapers. */
  base(key: number): number {
    return this.drawn(key) * this.scale;
  }

  /** What the base is for a key, before its scale. */
  drawn(whole: number): number {
    const key = this.#byLot ? whole >>> 8 : whole;
    if (this.#set) return this.#set.values[this.#set.indexOf(key, this.slot)]!;
    return this.low + (this.high === this.low ? 0 : (this.high - this.low) * draw(key, this.slot));
  }

  read(reading: Reading): number {
    return this.#still ?? this.readFrom(this.drawn(reading.key), reading);
  }

  /** What it is where nothing but dials is known of anything: of what is shared and level, what it always is. */
  atDials(dials: Reading['dials']): number {
    return this.read({ ...newReading(), dials });
  }

  /** The least and the most that it may come to, whatever is read: by interval sums of its base and of what its curves reach. */
  bounds(dials: Reading['dials']): readonly [least: number, most: number] {
    if (this.#bounds?.dials !== dials) this.#bounds = { dials, range: this.#boundsAt(dials) };
    return this.#bounds.range;
  }

  #boundsAt(dials: Reading['dials']): readonly [least: number, most: number] {
    let [low, high] = [this.low, this.high];
    for (const step of this.#steps) {
      const [least, most] = reachOf(step, dials);
      const among = (...values: number[]) => [Math.min(...values), Math.max(...values)] as const;
      if (step.combine === 'multiply') [low, high] = among(low * least, low * most, high * least, high * most);
      else if (step.combine === 'add') [low, high] = [low + least, high + most];
      else if (step.combine === 'replace') [low, high] = [least, most];
      else [low, high] = [Math.min(low, least), Math.max(high, most)];
    }
    return [this.#limited(low), this.#limited(high)];
  }

  /** What it is for a particle that draws the middle of a spread. */
  middle(reading: Reading): number {
    return this.readFrom((this.low + this.high) / 2, reading);
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
      else value += (shape - value) * amountOf(step, reading);
    }
    return this.#limited(value);
  }

  #limited(value: number): number {
    return Math.max(this.least, Math.min(this.most, value)) * this.scale;
  }
}

const inputKinds = ({ reads, amountBy }: Inputs): Reads['kind'][] =>
  amountBy ? [reads.kind, amountBy.reads.kind] : [reads.kind];

/** Places at which a curve is looked at for what it reaches. */
const LOOKS = 64;

/** What the curves of a step reach: at a dial where that stands, else anywhere between their first and last keys. */
function reachOf({ reads, low, high }: NumberStep, dials: Reading['dials']): readonly [least: number, most: number] {
  const values = [low, ...(high ? [high] : [])].flatMap((curve) => {
    if (reads.kind === 'dial') return [curveAt(curve, dials[reads.dial] ?? 0)];
    fitToLife(curve, 1);
    const [first, last] = [curve.x[0] ?? 0, curve.x[curve.x.length - 1] ?? 0];
    const between = Array.from({ length: LOOKS + 1 }, (_, n) => curveAt(curve, first + ((last - first) * n) / LOOKS));
    return [...between, ...curve.y];
  });
  return [Math.min(...values), Math.max(...values)];
}
