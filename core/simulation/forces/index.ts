import type { ForceKind } from '../../document/index.ts';
import { attraction } from './attraction.ts';
import { curl } from './curl.ts';
import { drag } from './drag.ts';
import { gravity } from './gravity.ts';
import { vortex } from './vortex.ts';
import type { BoundForce, ForceSurroundings } from './force.ts';

/** Every kind of force: adding one touches its own file, its kernel and this list. */
export const FORCES: Record<ForceKind, (force: never, around: ForceSurroundings) => BoundForce> = {
  gravity,
  drag,
  attraction,
  vortex,
  curl,
};

export type { BoundForce, ForceCall, ForceMoment } from './force.ts';
