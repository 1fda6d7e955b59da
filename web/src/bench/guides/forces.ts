import {
  FORCES,
  settingsByName,
  type ChoiceSetting,
  type Force,
  type NumberSetting,
  type VectorSetting,
} from '@jinx/core/document';
import { add, mapAxes, scale, unit } from '@jinx/core/maths';
import type { GuideReader, GuideShape, GuideSwirls } from '@jinx/core/simulation';
import type { Guide } from '@jinx/stage';
import { arrow, circle, ORIGIN, X, Y, Z, type Point } from './lines';
import { linesOf } from './shapes';
import type { Matrices } from './matrices';

/** A force's settings at the instant that guides are drawn for. */
function readerOf(force: Force, matrices: Matrices): GuideReader {
  const number = (name: string): number => {
    const setting = settingsByName<NumberSetting>(force)[name];
    return setting ? matrices.now(setting) : 0;
  };
  const vector = (name: string): Point => {
    const { base } = settingsByName<VectorSetting>(force)[name]!;
    return base.kind === 'fixed' ? base.value : mapAxes(base.low, (low, axis) => (low + base.high[axis]!) / 2);
  };
  return {
    number,
    vector,
    axis: (name) => {
      const { base } = settingsByName<VectorSetting>(force)[name]!;
      return unit(base.kind === 'fixed' ? base.value : Y);
    },
    choice: (name) => String(settingsByName<ChoiceSetting>(force)[name]!.base.value),
  };
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

function swirlPoints(
  id: string,
  force: Force,
  shape: GuideSwirls,
  matrices: Matrices,
  parent: string | null,
  isOnThing: boolean,
): Float32Array {
  const { middle, swirling } = matrices.swirling(force.place, shape, parent, isOnThing);
  const key = JSON.stringify([id, matrices.seed, middle, swirling]);
  const known = drawnLast.get(force);
  if (known?.key === key) return known.points;
  const points = Float32Array.from(swirlLines(matrices.swirlsOf(id, swirling), middle, swirling.size));
  drawnLast.set(force, { key, points });
  return points;
}

/** Where the guide of a force stands that is felt everywhere alike. */
const ASIDE: Point = [0.9, 1.6, 0];

/** A force as it is drawn; `parent` is the group its layer stands in, `isOnThing` whether that is born on a thing of the stage. */
export function forceGuides(
  id: string,
  force: Force,
  matrices: Matrices,
  parent: string | null,
  isOnThing = false,
): Guide[] {
  if (force.muted) return [];
  const { guide, isDrawnAside = false } = FORCES[force.kind];
  const reader = readerOf(force, matrices);
  const reach = reader.number('reach');
  const shapes: readonly GuideShape[] = guide?.(reader) ?? (reach > 0 ? [{ draws: 'cross' }] : []);
  const [swirls] = shapes.filter((shape) => shape.draws === 'swirls');
  if (swirls)
    return [{ matrix: -1, points: swirlPoints(id, force, swirls, matrices, parent, isOnThing), tone: 'faint' }];
  // What is the world's own stands beside the effect unless it has a reach.
  const isFree = isDrawnAside && reach === 0;
  const place = matrices.hung(force.place, parent);
  const matrix = isFree ? -1 : matrices.of(force.place);
  const lines = shapes.flatMap((shape) => (shape.draws === 'swirls' ? [] : linesOf(shape, isFree ? ASIDE : ORIGIN)));
  const guides: Guide[] = [];
  if (lines.length > 0)
    guides.push({ matrix, points: isFree ? Float32Array.from(lines) : place(lines), tone: 'force' });
  if (reach > 0) guides.push({ matrix, points: place(circle(ORIGIN, reach, X, Z, true)), tone: 'faint' });
  return guides;
}
