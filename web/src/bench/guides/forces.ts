import type { Force, NumberSetting, VectorSetting } from '@jinx/core/document';
import type { Guide } from '@jinx/stage';
import { across, along, arrow, circle, cross, moved, ORIGIN, spin, X, Y, Z, type Point } from './lines';
import type { Matrices } from './matrices';

/** A number setting of a force by name, where its kind has it. */
function numberOf(force: Force, name: string, matrices: Matrices): number {
  const setting = (force.settings as unknown as Record<string, NumberSetting | undefined>)[name];
  return setting ? matrices.now(setting) : 0;
}
function axisOf(force: Force): Point {
  const { axis } = force.settings as unknown as { axis?: VectorSetting };
  const way = axis?.base.kind === 'fixed' ? axis.base.value : [0, 1, 0];
  const size = Math.hypot(...way);
  return size > 0 ? (way.map((x) => x / size) as unknown as Point) : [0, 1, 0];
}
/** What a force does, drawn about its place: lines, and whether they are the force itself or only its reach. */
function drawing(force: Force, centre: Point, matrices: Matrices): number[] {
  const axis = axisOf(force);
  const [u, v] = across(axis);
  const reach = numberOf(force, 'reach', matrices);
  switch (force.kind) {
    case 'gravity':
      return arrow(centre, [0, -0.05 * numberOf(force, 'strength', matrices), 0]);
    case 'wind':
      return [-0.5, 0, 0.5].flatMap((side) =>
        arrow(moved(centre, along(v, side)), along(axis, 0.25 * numberOf(force, 'speed', matrices))),
      );
    case 'attraction': {
      const half = force.settings.toward.base.value === 'line' ? numberOf(force, 'length', matrices) / 2 : 0;
      return [...cross(centre, 0.05), ...moved(centre, along(axis, -half)), ...moved(centre, along(axis, half))];
    }
    case 'vortex':
      return [
        ...cross(centre, 0.05),
        ...spin(centre, Math.min(0.4, reach || 0.4), u, v, numberOf(force, 'strength', matrices) < 0),
      ];
    case 'orbit': {
      const distance = numberOf(force, 'distance', matrices);
      const round = [
        ...circle(centre, distance, u, v),
        ...spin(centre, distance, u, v, numberOf(force, 'speed', matrices) < 0),
      ];
      return force.settings.about.base.value === 'axis' ? round : [...round, ...circle(centre, distance, u, axis)];
    }
    case 'push':
      return [X, along(X, -1), Z, along(Z, -1), Y].flatMap((way) =>
        arrow(moved(centre, along(way, 0.15)), along(way, Math.sign(numberOf(force, 'strength', matrices)) * 0.3)),
      );
    case 'velocity':
    case 'displacement': {
      const way: Point = [
        numberOf(force, 'x', matrices),
        numberOf(force, 'y', matrices),
        numberOf(force, 'z', matrices),
      ];
      return Math.hypot(...way) > 0 ? arrow(centre, along(way, 0.25)) : [];
    }
    default:
      return reach > 0 ? cross(centre, 0.05) : [];
  }
}

/** A force as it is drawn; `parent` is the group its layer stands in. */
export function forceGuides(force: Force, matrices: Matrices, parent: string | null): Guide[] {
  if (force.muted) return [];
  const reach = numberOf(force, 'reach', matrices);
  // Gravity is the world's own: its arrow stands beside the effect unless it has a reach.
  const isFree = force.kind === 'gravity' && reach === 0;
  const place = matrices.hung(force.place, parent);
  const matrix = isFree ? -1 : matrices.of(force.place);
  const lines = drawing(force, isFree ? [0.9, 1.6, 0] : ORIGIN, matrices);
  const guides: Guide[] = [];
  if (lines.length > 0)
    guides.push({ matrix, points: isFree ? Float32Array.from(lines) : place(lines), tone: 'force' });
  if (reach > 0) guides.push({ matrix, points: place(circle(ORIGIN, reach, X, Z, true)), tone: 'faint' });
  return guides;
}
