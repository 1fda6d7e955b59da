import type { Frame, FrameLayer } from '@jinx/core/simulation';

/** Tells layers of different looks apart that have the same salt. */
export const keyOf = (salt: number, looks = 0): number => looks * 4294967296 + salt;

/** Whether words of a frame are the same. */
function areSame({ u32 }: Frame, a: number, b: number, count: number): boolean {
  for (let n = 0; n < count; n++) if (u32[a + n] !== u32[b + n]) return false;
  return true;
}

/** Whether a layer of another instance lies behind one and is drawn by the same numbers: one draw call shows both. */
function goesOn(frame: Frame, before: FrameLayer, layer: FrameLayer, readsClock: boolean): boolean {
  return (
    layer.plan === before.plan &&
    layer.start === before.start + before.count &&
    layer.own === before.own + before.count * before.ownWords &&
    layer.jointStart === before.jointStart + before.jointCount &&
    layer.sharedCount === before.sharedCount &&
    (!readsClock || layer.step === before.step) &&
    areSame(frame, before.shared, layer.shared, layer.sharedCount) &&
    areSame(frame, before.turns, layer.turns, 8)
  );
}

/**
 * The layers of a key among those of a frame, into `out`: those of several instances that are drawn alike as one. `found` is
 * what the frame tells, and is written over.
 */
export function mergeAlike(
  frame: Frame,
  found: readonly FrameLayer[],
  key: number,
  { readsClock, isApart }: { readonly readsClock: boolean; readonly isApart: boolean },
  out: FrameLayer[],
): void {
  out.length = 0;
  for (const layer of found) {
    if (keyOf(layer.salt, layer.looks) !== key) continue;
    const before = out[out.length - 1];
    if (isApart || !before || !goesOn(frame, before, layer, readsClock)) {
      out.push(layer);
      continue;
    }
    before.count += layer.count;
    before.jointCount += layer.jointCount;
  }
}
