import {
  listed,
  READS_LAW,
  stretchedCurve,
  type Curve,
  type NumberSetting,
  type Reads,
  type Shaper,
} from '../../document/index.ts';
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

export const isSharedInput = (reads: Reads): boolean =>
  reads.kind === 'effectTime' || reads.kind === 'stretchTime' || reads.kind === 'dial';

/** What all steps that differ between particles read, if it is one thing that a table can run over. */
export function tableInputOf(
  steps: readonly { reads: Reads; isRelative: boolean; isBand: boolean }[],
  life: number | null,
) {
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
