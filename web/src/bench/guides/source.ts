import { isShapeKind, SHAPES, type Layer } from '@jinx/core/document';
import { radians } from '@jinx/core/maths';
import type { Guide } from '@jinx/stage';
import { ORIGIN } from './lines';
import { vectorOf, type Matrices } from './matrices';
import { linesOf } from './shapes';

/** The lines of a shape about its own middle. */
function shapeLines({ source, settings }: Layer, matrices: Matrices): number[] {
  if (source.kind === 'path') {
    const ends = source.closed ? [...source.points, source.points[0]!] : source.points;
    return ends.slice(1).flatMap((point, n) => [...ends[n]!, ...point]);
  }
  if (!isShapeKind(source.kind)) return [];
  const shapes = SHAPES[source.kind].guide({
    radius: matrices.now(settings['source.radius']),
    length: matrices.now(settings['source.length']),
    angle: radians(matrices.now(settings['source.angle'])),
    size: Float64Array.from(vectorOf(settings['source.size'])),
  });
  return shapes.flatMap((shape) => linesOf(shape, ORIGIN));
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
