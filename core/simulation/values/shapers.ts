import {
  listed,
  READS_LAW,
  stretchedCurve,
  TIMED,
  type Curve,
  type NumberSetting,
  type Reads,
  type Shaper,
} from '../../document/index.ts';
import { curveAt, fitToLife, readyCurve, type ReadyCurve } from '../../maths/index.ts';
import type { Reading } from './reading.ts';

/** Ways of combining act in this order, and by id within one way, so that the order on screen changes nothing. */
const COMBINING_ORDER = { replace: 0, blend: 1, multiply: 2, add: 3 } as const;

export function activeShapers(setting: { shapers: NumberSetting['shapers'] }): { id: string; item: Shaper }[] {
  return listed(setting.shapers)
    .filter(({ item }) => !item.muted)
    .sort((a, b) => COMBINING_ORDER[a.item.combine] - COMBINING_ORDER[b.item.combine] || (a.id < b.id ? -1 : 1));
}

export function inputOf(reads: Reads, reading: Reading): number {
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
    case 'carrierSpeed':
      return reading.around?.carrierSpeed(reading.time) ?? 0;
    case 'aimDistance':
      return reading.around?.aimDistance(reading.x, reading.y, reading.z, reading.time) ?? 0;
    case 'along':
      return reading.along;
    case 'channel':
      return reading.channels?.read(reads.channel, reading) ?? 0;
    case 'dial':
      return reading.dials[reads.dial] ?? 0;
  }
}

/** How many times as far what is read goes in a group of a scale: speeds and distances grow with it. */
export const widthIn = (reads: Reads, group: number): number => (READS_LAW[reads.kind].size === 1 ? group : 1);
export const inGroup = (curve: Curve, reads: Reads, group: number): Curve =>
  stretchedCurve(curve, widthIn(reads, group));

/** How one setting is tabulated: over age, over speed, or not at all. */
export type TableInput = 'age' | 'speed' | null;

const SHARED: ReadonlySet<Reads['kind']> = new Set(TIMED);
/** Whether all particles of a layer read the same at one moment. */
export const isSharedInput = (reads: Reads): boolean => SHARED.has(reads.kind);

/** What a step of a setting reads: what its mapping is of, and what the amount of its blend hangs on. */
export interface Inputs {
  readonly reads: Reads;
  readonly amountBy: ReadyAmount | null;
  readonly isRelative: boolean;
  readonly isBand: boolean;
}

/** How far a blend goes, where that changes. */
export interface ReadyAmount {
  readonly reads: Reads;
  readonly curve: ReadyCurve;
}

/** The amount of a shaper, ready to be read, in a group of a scale. */
export const readyAmount = ({ combine, amountBy }: Shaper, group: number): ReadyAmount | null =>
  combine === 'blend' && amountBy
    ? { reads: amountBy.reads, curve: readyCurve(inGroup(amountBy.curve, amountBy.reads, group)) }
    : null;

/** How far a step of a setting goes from what was before it to its shape. */
export function amountOf(
  { combine, amount, amountBy }: Pick<Shaper, 'combine' | 'amount'> & { amountBy: ReadyAmount | null },
  reading: Reading,
): number {
  if (combine === 'replace') return 1;
  if (!amountBy) return amount;
  fitToLife(amountBy.curve, reading.life);
  return Math.max(0, Math.min(1, amount * curveAt(amountBy.curve, inputOf(amountBy.reads, reading))));
}

const inputsOf = ({ reads, amountBy, isRelative }: Inputs): { reads: Reads; isRelative: boolean }[] =>
  amountBy
    ? [
        { reads, isRelative },
        { reads: amountBy.reads, isRelative: amountBy.curve.relative },
      ]
    : [{ reads, isRelative }];

/** Whether a step reads something that only a particle has. */
export const readsParticle = (step: Inputs): boolean => inputsOf(step).some(({ reads }) => !isSharedInput(reads));
/** Whether a step reads something that changes with time for all particles alike. */
export const readsShared = (step: Inputs): boolean => inputsOf(step).some(({ reads }) => isSharedInput(reads));

/** What all steps that differ between particles read, if it is one thing that a table can run over. */
export function tableInputOf(steps: readonly Inputs[], life: number | null): TableInput {
  let input: TableInput = 'age';
  let isFirst = true;
  for (const step of steps) {
    if (step.isBand) return null;
    for (const { reads, isRelative } of inputsOf(step)) {
      if (!isRelative && life === null) return null;
      if (isSharedInput(reads)) continue;
      if (reads.kind !== 'age' && reads.kind !== 'speed') return null;
      if (!isFirst && reads.kind !== input) return null;
      input = reads.kind;
      isFirst = false;
    }
  }
  return input;
}
