import type { Effect } from '@jinx/core/document';
import type { Rig } from '@jinx/core/geometry';
import { playAlone } from '@jinx/core/simulation';

/** Steps of which hashes are published, and the one of which records are. */
export const HASH_STEPS = [60, 240] as const;
const DUMP_STEP = 60;
const DUMPED = 2;

/** What is published of an effect of the demo: hashes at steps, and the first records of each layer (core/simulation/frames/frame.ts). */
export function demoVector(effect: Effect, rigs: ReadonlyMap<string, Rig>, steps: readonly number[] = HASH_STEPS) {
  const world = playAlone(effect, rigs);
  const hashes: Record<string, string | null> = {};
  const records: Record<string, number[]> = {};
  for (const step of steps) {
    world.advance(step);
    hashes[step] = world.hash();
    if (step !== DUMP_STEP) continue;
    for (const id of effect.layers.order) {
      const words = world.records(id);
      if (words.length > 0) records[effect.layers.byId[id]!.name] = [...words.subarray(0, 16 * DUMPED)];
    }
  }
  return { hashes, dumpedAt: DUMP_STEP, records };
}
