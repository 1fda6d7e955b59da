import type { Vector } from '@jinx/core/document';

/**
 * A vector with one axis set and the others gone with it in proportion, each kept between `least` and `most`; from
 * nothing, which has no proportions, all become the same.
 */
export function inProportion(value: Vector, axis: number, to: number, least: number, most: number): Vector {
  const from = value[axis]!;
  return value.map((one, n) => {
    if (n === axis) return to;
    const next = from === 0 ? to : (one * to) / from;
    return Number(Math.min(most, Math.max(least, next)).toPrecision(6));
  }) as Vector;
}
