import { describe, expect, it } from 'vitest';
import { draw, mapAxes, type Vec3 } from '../../maths/index.ts';
import type { GuidePiece } from '../forces/index.ts';
import { LocalPoint, SHAPE_KINDS, SHAPES, type Measures } from './index.ts';

const MEASURES: Measures = {
  radius: 0.8,
  length: 1.4,
  thickness: 0,
  arc: 1,
  rise: Math.PI,
  angle: 0.3,
  depth: 1,
  size: Float64Array.of(0.5, 1.2, 2),
};

/** How far a piece of a guide reaches: its corners, least and most. */
function cornersOf(piece: GuidePiece): Vec3[] {
  const about = (at: Vec3, reach: Vec3) => [1, -1].map((sign) => mapAxes(at, (x, axis) => x + sign * reach[axis]!));
  switch (piece.draws) {
    case 'circle':
      expect(piece.axis).toEqual([0, 1, 0]);
      return about(piece.at ?? [0, 0, 0], [piece.radius, 0, piece.radius]);
    case 'globe':
      return about([0, 0, 0], [piece.radius, piece.radius, piece.radius]);
    case 'box':
      return about(
        [0, 0, 0],
        mapAxes(piece.size, (x) => x / 2),
      );
    case 'line':
      return about(
        [0, 0, 0],
        mapAxes(piece.axis, (x) => (x * piece.length) / 2),
      );
    case 'segment':
      return [piece.from, piece.to];
    default:
      return [[0, 0, 0]];
  }
}

describe('a shape that particles are born on', () => {
  it.each(SHAPE_KINDS)('%s bears them where its guide is drawn', (kind) => {
    const shape = SHAPES[kind];
    const corners = shape.guide(MEASURES).flatMap(cornersOf);
    const p = new LocalPoint();
    const born = Array.from({ length: 4000 }, (_, key) => {
      shape.pointInto(p, Float64Array.of(draw(key, 1), draw(key, 2), draw(key, 3), 0), 'surface', MEASURES);
      for (const way of [p.out, p.along]) expect(Math.hypot(...way)).toBeCloseTo(1, 6);
      return [...p.at];
    });
    for (const axis of [0, 1, 2])
      for (const end of [Math.min, Math.max]) {
        const reached = end(...born.map((at) => at[axis]!));
        const drawn = end(...corners.map((at) => at[axis]!));
        expect(Math.abs(reached - drawn), `axis ${axis}`).toBeLessThan(0.03);
      }
  });

  it.each(SHAPE_KINDS)('%s is pulled by what it is measured by', (kind) => {
    const { handles, measures } = SHAPES[kind];
    for (const { measure, way } of handles) {
      expect(measures).toContain(measure);
      expect(way === undefined).toBe(measure === 'size');
    }
  });
});
