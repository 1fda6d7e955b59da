import type { Effect } from '@jinx/core/document';
import type { KitAssets } from './build.ts';
import { lamplitMantle } from './lamplitMantle.ts';
import { peatSmoke } from './peatSmoke.ts';
import { reedCleave } from './reedCleave.ts';
import { saltWard } from './saltWard.ts';
import { wickFlame } from './wickFlame.ts';

export type { KitAssets } from './build.ts';
export { lamplitMantle };

/** Fenlight's effects: each is made from the hashes of the kit's assets, by the names of their files. */
export const EFFECTS: readonly ((kit: KitAssets) => Effect)[] = [
  (kit) => lamplitMantle(kit['sedge']!),
  saltWard,
  reedCleave,
  peatSmoke,
  wickFlame,
];
