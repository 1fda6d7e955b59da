import type { Effect } from '@jinx/core/document';
import type { StageRigs } from '@jinx/core/checks';
import { restExtent } from '@jinx/core/geometry';
import type { Extent } from '@jinx/stage';
import type { View } from '@jinx/player/scene';

type Xyz = [number, number, number];

/** Of the picture's height, and its width, what is framed takes so much. */
const SHARE = 0.72;
/** What is smaller is framed as if it were as large, metres. */
const LEAST_METRES = 0.2;

/** The same direction of view, from where a box fills the picture; `aspect` is its width by its height. */
export function viewOf({ low, high }: Extent, from: View, aspect: number, followed: readonly [number, number]): View {
  const sides = low.map((least, axis) => high[axis]! - least);
  const middle = low.map((least, axis) => (least + high[axis]!) / 2) as Xyz;
  const wide = Math.max(LEAST_METRES, Math.hypot(sides[0]!, sides[2]!));
  const tall = Math.max(LEAST_METRES, sides[1]!);
  const half = Math.tan((from.fieldOfView * Math.PI) / 360);
  // What stands nearer than the middle looks larger.
  const metres = Math.max(tall, wide / aspect) / (2 * half * SHARE) + wide / 2;
  const target: Xyz = from.follows ? [middle[0] - followed[0], middle[1], middle[2] - followed[1]] : middle;
  const way = from.position.map((value, axis) => value - from.target[axis]!);
  const far = Math.hypot(...way) || 1;
  const position = target.map((value, axis) => value + (way[axis]! / far) * metres) as Xyz;
  return { ...from, position, target };
}

/** A box around everything that stands on the stage where it is put, at rest; null where nothing stands there. */
export function extentOfThings({ stage }: Effect, rigs: StageRigs): Extent | null {
  const low: Xyz = [Infinity, Infinity, Infinity];
  const high: Xyz = [-Infinity, -Infinity, -Infinity];
  for (const id of stage.things.order) {
    const rig = rigs.get(id);
    const thing = stage.things.byId[id]!;
    if (!rig) continue;
    const { low: least, high: most } = restExtent(rig.mesh.positions);
    const beside = Math.max(...[least[0], least[2], most[0], most[2]].map(Math.abs)) * thing.scale;
    for (const axis of [0, 1, 2] as const) {
      const [from, to] = axis === 1 ? [least[1] * thing.scale, most[1] * thing.scale] : [-beside, beside];
      low[axis] = Math.min(low[axis], thing.at[axis] + from);
      high[axis] = Math.max(high[axis], thing.at[axis] + to);
    }
  }
  return low[0] <= high[0] ? { low, high } : null;
}
