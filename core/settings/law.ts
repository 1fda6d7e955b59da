import type { NumberDeclaration } from './declaration.ts';
import type { Reads } from './setting.ts';

/** A size s and a tempo k: an effect s times as large and k times as fast. */
export interface Scaling {
  readonly size: number;
  readonly tempo: number;
}

/** By which powers of size and tempo a quantity goes. */
export interface Powers {
  readonly size: -2 | -1 | 0 | 1 | 2;
  readonly tempo: -1 | 0 | 1 | 2;
}

const NEITHER: Powers = { size: 0, tempo: 0 };

/**
 * The law by which an effect made larger or faster keeps its picture: dimensional analysis of its equations of motion,
 * with lengths times s and times divided by k. What has no unit stays.
 */
export const LAW: Record<NumberDeclaration['unit'], Powers> = {
  m: { size: 1, tempo: 0 },
  'm/s': { size: 1, tempo: 1 },
  'm/s²': { size: 1, tempo: 2 },
  '/s': { size: 0, tempo: 1 },
  '/m': { size: -1, tempo: 0 },
  '/m²': { size: -2, tempo: 0 },
  s: { size: 0, tempo: -1 },
  '°': NEITHER,
  '°/s': { size: 0, tempo: 1 },
  '%': NEITHER,
  count: NEITHER,
  '×': NEITHER,
  '': NEITHER,
};

/** How what a shaper reads goes: the places of its keys go with it. A share of something stays the same share. */
export const READS_LAW: Record<Reads['kind'], Powers> = {
  age: NEITHER,
  effectTime: NEITHER,
  stretchTime: NEITHER,
  channel: NEITHER,
  dial: NEITHER,
  speed: LAW['m/s'],
  distance: LAW.m,
  carrierSpeed: LAW['m/s'],
  aimDistance: LAW.m,
  along: NEITHER,
};

/** A whole power, by multiplying. */
function toThe(base: number, power: number): number {
  let product = 1;
  for (let n = 0; n < Math.abs(power); n++) product *= base;
  return power < 0 ? 1 / product : product;
}
/** What a scaling makes of a quantity. */
export const factorOf = ({ size, tempo }: Scaling, powers: Powers): number =>
  toThe(size, powers.size) * toThe(tempo, powers.tempo);

/** What the scale of the groups it stands in makes of a number: a mesh and its area stay as they are. */
export const groupFactor = (scale: number, unit: NumberDeclaration['unit']): number => {
  const { size } = LAW[unit];
  return size === 1 ? scale : size === -1 ? 1 / scale : 1;
};
