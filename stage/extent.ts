import { RECORD_SIZE, RECORD_TO, type Frame } from '@jinx/core/simulation';
import type { Extent } from './protocol.ts';

/** A box around the particles of the layers of those salts, with half their sizes; null where none has a size. */
export function extentOf(frame: Frame, salts: readonly number[]): Extent | null {
  const { f32 } = frame;
  const low: [number, number, number] = [Infinity, Infinity, Infinity];
  const high: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (const salt of salts) {
    const layer = frame.layer(salt);
    for (let n = 0; n < (layer?.count ?? 0); n++) {
      const at = frame.recordAt(layer!.start + n);
      const half = Math.abs(f32[at + RECORD_SIZE]!) / 2;
      if (half === 0) continue;
      for (let axis = 0; axis < 3; axis++) {
        const place = f32[at + RECORD_TO + axis]!;
        low[axis] = Math.min(low[axis]!, place - half);
        high[axis] = Math.max(high[axis]!, place + half);
      }
    }
  }
  return low[0] <= high[0] ? { low, high } : null;
}
