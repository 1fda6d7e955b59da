import type { Layer } from '@jinx/core/document';
import type { Guide } from '@jinx/stage';
import { cross, ORIGIN } from './lines';
import type { Matrices } from './matrices';

/** The two places between which a blade or a beam lies: the first larger than the second. */
export function ribbonGuides({ drawn, parent }: Layer, matrices: Matrices): Guide[] {
  if (!('from' in drawn)) return [];
  return [drawn.from, drawn.to].map((place, n) => ({
    matrix: matrices.of(place),
    points: matrices.hung(place, parent)(cross(ORIGIN, n === 0 ? 0.08 : 0.05)),
    tone: 'source',
  }));
}
