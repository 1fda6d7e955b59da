interface Size {
  readonly width: number;
  readonly height: number;
}
interface Point {
  readonly x: number;
  readonly y: number;
}

const STEP = 8;
/** Room about a key that stays free, in pixels. */
const ABOUT = 9;

/** A spot for a box within an area, along its top or its bottom, as near as may be to `x`, that covers none of the points. */
export function freeSpot(box: Size, area: Size, points: readonly Point[], x: number): Point {
  const wanted = x - box.width / 2;
  const last = Math.max(0, area.width - box.width);
  const covered = (left: number, top: number) =>
    points.filter(
      (point) =>
        point.x > left - ABOUT &&
        point.x < left + box.width + ABOUT &&
        point.y > top - ABOUT &&
        point.y < top + box.height + ABOUT,
    ).length;
  let best = { x: 0, y: 0, cost: Infinity };
  for (const top of [2, area.height - box.height - 2])
    for (let left = 0; left <= last; left += STEP) {
      // Covering a key is worse than standing anywhere else.
      const cost = covered(left, top) * 1e6 + Math.abs(left - wanted);
      if (cost < best.cost) best = { x: left, y: top, cost };
    }
  return { x: best.x, y: best.y };
}
