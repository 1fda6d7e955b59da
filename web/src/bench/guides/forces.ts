import { type Force, type NumberSetting, type VectorSetting, settingsByName } from '@jinx/core/document';
import type { Guide } from '@jinx/stage';
import { across, arrow, circle, cross, ORIGIN, spin, X, Y, Z, type Point } from './lines';
import type { Matrices } from './matrices';
import { add, scale, unit } from '@jinx/core/maths';

/** A number setting of a force by name, where its kind has it. */
function numberOf(force: Force, name: string, matrices: Matrices): number {
  const setting = settingsByName<NumberSetting>(force)[name];
  return setting ? matrices.now(setting) : 0;
}
function axisOf(force: Force): Point {
  const { axis } = settingsByName<VectorSetting>(force);
  return unit(axis?.base.kind === 'fixed' ? axis.base.value : Y);
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
        arrow(add(centre, scale(v, side)), scale(axis, 0.25 * numberOf(force, 'speed', matrices))),
      );
    case 'attraction': {
      const half = force.settings.toward.base.value === 'line' ? numberOf(force, 'length', matrices) / 2 : 0;
      return [...cross(centre, 0.05), ...add(centre, scale(axis, -half)), ...add(centre, scale(axis, half))];
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
      return [X, scale(X, -1), Z, scale(Z, -1), Y].flatMap((way) =>
        arrow(add(centre, scale(way, 0.15)), scale(way, Math.sign(numberOf(force, 'strength', matrices)) * 0.3)),
      );
    case 'velocity':
    case 'displacement': {
      const way: Point = [
        numberOf(force, 'x', matrices),
        numberOf(force, 'y', matrices),
        numberOf(force, 'z', matrices),
      ];
      return Math.hypot(...way) > 0 ? arrow(centre, scale(way, 0.25)) : [];
    }
    default:
      return reach > 0 ? cross(centre, 0.05) : [];
  }
}

/** Lines of a curl's field that are drawn, each way from its place, and the pieces of one. */
const LINES = 2;
const PIECES = 9;
/** Where a curl is drawn: about as far as a figure reaches, or three swirls of it. */
const ROOM = { least: 0.7, most: 1.5, swirls: 1.5 };

/** The way that a curl stirs, as lines that follow its field for a swirl, each with a barb at its end. */
function swirlLines(swirls: (at: Point) => Point, middle: Point, size: number): number[] {
  const half = Math.min(ROOM.most, Math.max(ROOM.least, size * ROOM.swirls));
  const spread = Array.from({ length: 2 * LINES + 1 }, (_, n) => ((n - LINES) / LINES) * half);
  const points: number[] = [];
  for (const x of spread)
    for (const y of [-0.5 * half, 0.5 * half])
      for (const z of spread) {
        let at = add(middle, [x, y, z]);
        for (let piece = 0; piece < PIECES; piece++) {
          const way = swirls(at);
          const long = Math.hypot(...way);
          if (long < 1e-6) break;
          const on = scale(way, (size * 0.12) / long);
          const next = add(at, on);
          points.push(...(piece === PIECES - 1 ? arrow(at, scale(on, 1.6)) : [...at, ...next]));
          at = next;
        }
      }
  return points;
}

/** The lines of each curl as it was drawn last: hundreds of readings of its field, which most edits leave as it is. */
const drawnLast = new WeakMap<Force, { readonly key: string; readonly points: Float32Array }>();

/** A force as it is drawn; `parent` is the group its layer stands in, `isOnThing` whether that is born on a thing of the stage. */
export function forceGuides(
  id: string,
  force: Force,
  matrices: Matrices,
  parent: string | null,
  isOnThing = false,
): Guide[] {
  if (force.muted) return [];
  if (force.kind === 'curl') {
    const { middle, swirling } = matrices.swirling(force, numberOf(force, 'size', matrices), parent, isOnThing);
    const key = JSON.stringify([id, matrices.seed, middle, swirling]);
    let drawn = drawnLast.get(force);
    if (drawn?.key !== key) {
      const lines = swirlLines(matrices.swirlsOf(id, swirling), middle, swirling.size);
      drawn = { key, points: Float32Array.from(lines) };
      drawnLast.set(force, drawn);
    }
    return [{ matrix: -1, points: drawn.points, tone: 'faint' }];
  }
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
