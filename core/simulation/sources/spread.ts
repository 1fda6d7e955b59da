import { actingValue, LAYER_SETTINGS, type Layer } from '../../document/index.ts';
import { draw, slotOf } from '../../maths/index.ts';
import type { BirthAsk } from './source.ts';

const SLOT_FIRST = slotOf('source/turn');
const SLOT_SECOND = slotOf('source/rise');
const SLOT_THIRD = slotOf('source/depth');
const SLOT_FOURTH = slotOf('source/triangle');

/** Steps of the even sequence in one, two and three dimensions (Roberts, 2018, The Unreasonable Effectiveness of Quasirandom Sequences). */
const EVEN = [
  [0.6180339887498949],
  [0.7548776662466927, 0.5698402909980532],
  [0.8191725133961645, 0.6710436067037893, 0.5497004779019703],
] as const;

const fraction = (x: number): number => x - Math.floor(x);

/** Four numbers 0 ≤ u < 1 that say where a birth falls: the first runs along the source when births walk along it. */
export type Shares = Float64Array;

/** Writes the shares of a birth, by the layer's order: random, evenly spread in so many dimensions, or walking along. */
export function sharesInto(
  out: Shares,
  order: string,
  ask: BirthAsk,
  dimensions: 1 | 2 | 3,
  walk: number,
  salt: number,
): void {
  const { key, number } = ask;
  out[0] = draw(key, SLOT_FIRST);
  out[1] = draw(key, SLOT_SECOND);
  out[2] = draw(key, SLOT_THIRD);
  out[3] = draw(key, SLOT_FOURTH);
  if (order === 'even') {
    const steps = EVEN[dimensions - 1]!;
    for (let i = 0; i < dimensions; i++) out[i] = fraction(draw(salt, i) + (number + 1) * steps[i]!);
  } else if (order === 'walking') out[0] = fraction(((number % walk) + 0.5) / walk);
}

/** A layer's order of births. */
export const orderOf = ({ settings }: Layer): string =>
  actingValue(settings['source.order'], LAYER_SETTINGS['source.order']);
export const regionOf = ({ settings }: Layer): string =>
  actingValue(settings['source.region'], LAYER_SETTINGS['source.region']);
