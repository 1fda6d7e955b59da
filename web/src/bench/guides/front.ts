import { previewOf, type StageRigs } from '@jinx/core/checks';
import type { Effect, Front } from '@jinx/core/document';
import type { Guide } from '@jinx/stage';
import { arrow, ballLines, boxLines, cross, ORIGIN, Y } from './lines';
import { vectorOf, type Matrices } from './matrices';
import { vec3At, scale } from '@jinx/core/maths';

/** Half the side of the square by which a plane is drawn, metres. */
const PLANE_SIDE = 0.8;
const CROSS_SIZE = 0.02;

function borderLines({ kind, settings }: Front, border: number): number[] {
  if (kind === 'sphere') return ballLines(Math.max(0, border));
  if (kind === 'box') {
    const sides = vectorOf(settings.size as never).map((side) => Math.max(0, side + 2 * border));
    return boxLines(sides[0]!, sides[1]!, sides[2]!);
  }
  const corners = [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ].map(([x, z]) => [x! * PLANE_SIDE, border, z! * PLANE_SIDE]);
  const square = corners.flatMap((corner, n) => [...corner, ...corners[(n + 1) % 4]!]);
  return [...square, ...(border === 0 ? [] : arrow(ORIGIN, scale(Y, border)))];
}

/** How far the chosen layer's front reaches now and in the end, and a cross on each that it never frees. */
export function frontGuides(effect: Effect, layerId: string, matrices: Matrices, rigs: StageRigs): Guide[] {
  const id = effect.layers.byId[layerId]!.front;
  const front = id === null ? null : effect.fronts.byId[id];
  if (!front) return [];
  const never = previewOf(effect, layerId, rigs)?.never ?? new Float32Array(0);
  const crosses = Array.from({ length: never.length / 3 }, (_, n) => {
    const [x, y, z] = vec3At(never, n * 3);
    return cross([x, y, z], CROSS_SIZE);
  }).flat();
  const borderAt = (metres: number, tone: Guide['tone']): Guide => ({
    matrix: matrices.of(front.place),
    points: matrices.hung(front.place)(borderLines(front, metres)),
    tone,
  });
  const [end, now] = [matrices.highest(front.settings.border), matrices.now(front.settings.border)];
  // Both edges of a band.
  const half = front.settings.frees.base.value === 'band' ? matrices.now(front.settings.band) / 2 : 0;
  const edges = half > 0 ? [now - half, now + half] : [now];
  const borders = [...edges.map((edge) => borderAt(edge, 'force')), ...(end === now ? [] : [borderAt(end, 'faint')])];
  if (crosses.length === 0) return borders;
  return [...borders, { matrix: -1, points: Float32Array.from(crosses), tone: 'surface' }];
}
