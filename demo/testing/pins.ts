import type { Effect } from '@jinx/core/document';
import { EFFECTS, STARTS, type KitAssets } from '../index.ts';

/** What is pinned of Fenlight: its effects by name, and the starting points by `start/ID`. */
export function pinnedEffects(kit: KitAssets): Record<string, Effect> {
  const effects = EFFECTS.map((make) => make(kit)).map((effect) => [effect.name, effect] as const);
  const starts = STARTS.map(({ id, make }) => [`start/${id}`, make(kit)] as const);
  return Object.fromEntries([...effects, ...starts]);
}
