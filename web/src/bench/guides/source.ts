import type { Layer } from '@jinx/core/document';
import type { Guide } from '@jinx/stage';
import { ballLines, boxLines, circle, cross, ORIGIN, X, Z } from './lines';
import { vectorOf, type Matrices } from './matrices';

/** The lines of a shape about its own middle. */
function shapeLines(layer: Layer, matrices: Matrices): number[] {
  const { source, settings } = layer;
  const radius = matrices.now(settings['source.radius']);
  const half = matrices.now(settings['source.length']) / 2;
  switch (source.kind) {
    case 'ring':
    case 'disc':
      return circle(ORIGIN, radius, X, Z);
    case 'sphere':
      return ballLines(radius);
    case 'line':
      return [0, -half, 0, 0, half, 0];
    case 'path': {
      const ends = source.closed ? [...source.points, source.points[0]!] : source.points;
      return ends.slice(1).flatMap((point, n) => [...ends[n]!, ...point]);
    }
    case 'cylinder':
      return [
        ...circle([0, -half, 0], radius, X, Z),
        ...circle([0, half, 0], radius, X, Z),
        ...[-1, 1].flatMap((s) => [s * radius, -half, 0, s * radius, half, 0]),
      ];
    case 'cone': {
      const lean = Math.tan((matrices.now(settings['source.angle']) * Math.PI) / 180);
      const length = 2 * half || 0.3;
      const top = radius + length * lean;
      return [
        ...circle(ORIGIN, radius, X, Z),
        ...circle([0, length, 0], top, X, Z),
        ...[-1, 1].flatMap((s) => [s * radius, 0, 0, s * top, length, 0, 0, 0, s * radius, 0, length, s * top]),
      ];
    }
    case 'box':
      return boxLines(...vectorOf(settings['source.size']));
    default:
      return cross(ORIGIN, 0.06);
  }
}

export function sourceGuides(layer: Layer, matrices: Matrices): Guide[] {
  const { source } = layer;
  if (!('place' in source)) return [];
  const stretch = vectorOf(layer.settings['source.stretch']);
  const lines = shapeLines(layer, matrices).map((x, i) => x * stretch[i % 3]!);
  return [
    { matrix: matrices.of(source.place), points: matrices.hung(source.place, layer.parent)(lines), tone: 'source' },
  ];
}
