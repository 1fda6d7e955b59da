import { add, scale, unit } from '@jinx/core/maths';
import type { GuidePiece } from '@jinx/core/simulation';
import { across, arrow, ballLines, boxLines, circle, cross, ORIGIN, spin, type Point } from './lines';

/** The lines of a piece of a guide about a place. */
export function linesOf(shape: GuidePiece, centre: Point): number[] {
  switch (shape.draws) {
    case 'cross':
      return cross(centre, 0.05);
    case 'arrow': {
      const aside = shape.aside ? scale(across(unit(shape.way))[1], shape.aside) : ORIGIN;
      return arrow(add(add(centre, shape.from ?? ORIGIN), aside), shape.way);
    }
    case 'line': {
      const half = scale(shape.axis, shape.length / 2);
      return [...add(centre, scale(half, -1)), ...add(centre, half)];
    }
    case 'segment':
      return [...add(centre, shape.from), ...add(centre, shape.to)];
    case 'circle':
      return circle(add(centre, shape.at ?? ORIGIN), shape.radius, ...across(shape.axis));
    case 'globe':
      return ballLines(shape.radius).map((x, n) => x + centre[n % 3]!);
    case 'box':
      return boxLines(...shape.size).map((x, n) => x + centre[n % 3]!);
    case 'ball':
      return [
        ...circle(centre, shape.radius, ...across(shape.axis)),
        ...circle(centre, shape.radius, across(shape.axis)[0], shape.axis),
      ];
    case 'spin':
      return spin(centre, shape.radius, ...across(shape.axis), shape.isBack);
  }
}
