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

/** Words that name a direction, as the stage has it: x to the figure's left, y up, z forward. */
export const WAYS: Readonly<Record<string, Vector>> = {
  forward: [0, 0, 1],
  back: [0, 0, -1],
  up: [0, 1, 0],
  down: [0, -1, 0],
  left: [1, 0, 0],
  right: [-1, 0, 0],
};

/** The word for a direction, however long; null where it is along none of them. */
export function wayOf(value: Vector): string | null {
  const length = Math.hypot(...value);
  const isAlong = (way: Vector) => way.reduce((sum, one, n) => sum + one * value[n]!, 0) > length * 0.99999;
  return length === 0 ? null : (Object.keys(WAYS).find((word) => isAlong(WAYS[word]!)) ?? null);
}

/** The direction of a word, as long as another vector is; 1 where that has no length. */
export function alongWay(word: string, as: Vector): Vector {
  const length = Number(Math.hypot(...as).toPrecision(6)) || 1;
  return WAYS[word]!.map((one) => (one === 0 ? 0 : one * length)) as Vector;
}
