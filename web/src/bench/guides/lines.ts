import { add, cross as crossProduct, mapAxes, unit, type Vec3 as Point } from '@jinx/core/maths';

export type { Point };

const AROUND = 96;
/** A circle about `centre` in the plane of the axes `u` and `v`. */
export function circle(centre: Point, radius: number, u: Point, v: Point, isDashed = false): number[] {
  const at = (k: number) => {
    const angle = (k / AROUND) * 2 * Math.PI;
    return centre.map((x, i) => x + radius * (Math.cos(angle) * u[i]! + Math.sin(angle) * v[i]!));
  };
  return Array.from({ length: AROUND }, (_, k) => (isDashed && k % 2 ? [] : [...at(k), ...at(k + 1)])).flat();
}
export const X: Point = [1, 0, 0];
export const Y: Point = [0, 1, 0];
export const Z: Point = [0, 0, 1];

export function cross(centre: Point, size: number): number[] {
  return [X, Y, Z].flatMap((axis) => [
    ...centre.map((x, i) => x - axis[i]! * size),
    ...centre.map((x, i) => x + axis[i]! * size),
  ]);
}

/** An arrow from `from` along `way`, with a head. */
export function arrow(from: Point, way: Point): number[] {
  const tip = add(from, way);
  const size = Math.hypot(...way) || 1;
  const aside: Point = Math.abs(way[1]) > 0.9 * size ? X : Y;
  const barb = (sign: number) => [...tip, ...tip.map((x, i) => x - way[i]! * 0.2 + sign * aside[i]! * size * 0.08)];
  return [...from, ...tip, ...barb(1), ...barb(-1)];
}

/** Arrows along a circle in the plane of `u` and `v`: which way something turns. */
export function spin(centre: Point, radius: number, u: Point, v: Point, isBack: boolean): number[] {
  return [0, 1, 2].flatMap((k) => {
    const angle = (k / 3) * 2 * Math.PI;
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    const from = mapAxes(centre, (x, i) => x + radius * (c * u[i]! + s * v[i]!));
    const way = mapAxes(u, (x, i) => (isBack ? -0.3 : 0.3) * radius * (c * v[i]! - s * x));
    return arrow(from, way);
  });
}

export const ORIGIN: Point = [0, 0, 0];

/** Two directions at right angles to an axis and to each other. */
export function across(axis: Point): [Point, Point] {
  const other = Math.abs(axis[1]) > 0.9 ? X : Y;
  const first = unit(crossProduct(other, axis));
  return [first, crossProduct(axis, first)];
}

/** The edges of a box about the origin. */
export const boxLines = (wide: number, tall: number, deep: number): number[] =>
  [0, 1, 2].flatMap((axis) =>
    [0, 1, 2, 3].flatMap((corner) =>
      [-1, 1].flatMap((end) => {
        const [a, b] = [corner & 1 ? 1 : -1, corner >> 1 ? 1 : -1];
        const at = axis === 0 ? [end, a, b] : axis === 1 ? [a, end, b] : [a, b, end];
        return [(at[0]! * wide) / 2, (at[1]! * tall) / 2, (at[2]! * deep) / 2];
      }),
    ),
  );

/** Three circles about the origin. */
export const ballLines = (radius: number): number[] => [
  ...circle(ORIGIN, radius, X, Z),
  ...circle(ORIGIN, radius, X, Y),
  ...circle(ORIGIN, radius, Z, Y),
];
