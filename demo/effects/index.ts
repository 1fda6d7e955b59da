import type { Effect } from '@jinx/core/document';
import { bellShock } from './bellShock.ts';
import type { KitAssets } from './build.ts';
import { drownedDoor } from './drownedDoor.ts';
import { eelLeash } from './eelLeash.ts';
import { lampBolt } from './lampBolt.ts';
import { lamplitMantle } from './lamplitMantle.ts';
import { mothUnmaking } from './mothUnmaking.ts';
import { peatSmoke } from './peatSmoke.ts';
import { reedCleave } from './reedCleave.ts';
import { saltWard } from './saltWard.ts';
import { sinkhole } from './sinkhole.ts';
import { seedWreath } from './seedWreath.ts';
import { tideSigil } from './tideSigil.ts';
import { wickFlame } from './wickFlame.ts';

export type { KitAssets } from './build.ts';
export { lamplitMantle };

/** Fenlight's effects: each is made from the hashes of the kit's assets, by the names of their files. */
export const EFFECTS: readonly ((kit: KitAssets) => Effect)[] = [
  (kit) => lamplitMantle(kit['sedge']!),
  saltWard,
  reedCleave,
  drownedDoor,
  peatSmoke,
  sinkhole,
  wickFlame,
  bellShock,
  lampBolt,
  eelLeash,
  mothUnmaking,
  tideSigil,
  seedWreath,
];

/** Steps at which each effect, by its name, is let loose: there it is judged and pictured. */
export const RELEASED: Readonly<Record<string, readonly number[]>> = {
  'Lamplit Mantle': [120, 200],
  'Salt Ward': [104, 112],
  'Reed Cleave': [34, 28],
  'Drowned Door': [110, 180],
  'Peat Smoke': [150, 90],
  Sinkhole: [205, 214],
  'Wick Flame': [90, 150],
  'Bell Shock': [91, 34],
  'Lamp Bolt': [70, 86],
  'Eel Leash': [90, 150],
  'Moth Unmaking': [75, 100],
  'Tide Sigil': [190, 120],
  'Seed Wreath': [120, 250],
};
