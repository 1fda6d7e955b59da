import type { Effect } from '@jinx/core/document';
import { bellShock } from './effects/bellShock.ts';
import type { KitAssets } from './effects/build.ts';
import { drownedDoor } from './effects/drownedDoor.ts';
import { eelLeash } from './effects/eelLeash.ts';
import { lampBolt } from './effects/lampBolt.ts';
import { lamplitMantle } from './effects/lamplitMantle.ts';
import { mothUnmaking } from './effects/mothUnmaking.ts';
import { peatSmoke } from './effects/peatSmoke.ts';
import { reedCleave } from './effects/reedCleave.ts';
import { saltWard } from './effects/saltWard.ts';
import { seedWreath } from './effects/seedWreath.ts';
import { tideSigil } from './effects/tideSigil.ts';
import { wickFlame } from './effects/wickFlame.ts';

/** An effect to begin with, by what it is for. */
export interface Start {
  readonly id: string;
  readonly intent: string;
  /** What is seen, in a few words. */
  readonly about: string;
  readonly make: (kit: KitAssets) => Effect;
  /** The step its picture begins to play at. */
  readonly from: number;
  /** Which of the instants of that picture is seen while it does not play. */
  readonly rest: number;
}

/** Instants of a picture that plays, side by side in one file, and the steps from one to the next. */
export const START_INSTANTS = 24;
export const START_EVERY = 5;

export const STARTS: readonly Start[] = [
  {
    id: 'mantle',
    intent: 'Mantle',
    about: 'motes leave a body’s skin, with a rim over it',
    make: (kit) => lamplitMantle(kit['sedge']!),
    from: 110,
    rest: 9,
  },
  {
    id: 'sigil',
    intent: 'Ground sigil',
    about: 'a mark writes itself and sets off reeds',
    make: tideSigil,
    from: 90,
    rest: 19,
  },
  { id: 'ward', intent: 'Ward', about: 'a shell of pieces that is hit and mends', make: saltWard, from: 40, rest: 9 },
  {
    id: 'slash',
    intent: 'Slash',
    about: 'several blades in one sweep, and their wake',
    make: reedCleave,
    from: 6,
    rest: 5,
  },
  {
    id: 'portal',
    intent: 'Portal',
    about: 'a standing oval with bent view and an eddy',
    make: drownedDoor,
    from: 60,
    rest: 9,
  },
  {
    id: 'bolt',
    intent: 'Bolt',
    about: 'a thrown light, and what it does where it lands',
    make: lampBolt,
    from: 20,
    rest: 10,
  },
  { id: 'beam', intent: 'Beam', about: 'a living cord between two who fight', make: eelLeash, from: 20, rest: 9 },
  {
    id: 'impact',
    intent: 'Impact',
    about: 'bent air, dust and a wave over the ground',
    make: bellShock,
    from: 80,
    rest: 3,
  },
  { id: 'smoke', intent: 'Smoke', about: 'lit puffs that dissolve into spores', make: peatSmoke, from: 60, rest: 9 },
  { id: 'flame', intent: 'Flame', about: 'a flame that leans as it is carried', make: wickFlame, from: 60, rest: 9 },
  {
    id: 'unmaking',
    intent: 'Unmaking',
    about: 'a body comes apart along a border',
    make: mothUnmaking,
    from: 30,
    rest: 9,
  },
  {
    id: 'overhead',
    intent: 'Mark overhead',
    about: 'things tumble on a ring above a head',
    make: seedWreath,
    from: 60,
    rest: 9,
  },
];
