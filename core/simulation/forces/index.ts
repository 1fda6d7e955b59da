import type { ForceKind } from '../../document/index.ts';
import { attraction } from './attraction.ts';
import { curl } from './curl.ts';
import { displacement } from './displacement.ts';
import { drag } from './drag.ts';
import { gravity } from './gravity.ts';
import { jitter } from './jitter.ts';
import { limit } from './limit.ts';
import { orbit } from './orbit.ts';
import { push } from './push.ts';
import { velocity } from './velocity.ts';
import { vortex } from './vortex.ts';
import { wind } from './wind.ts';
import type { BoundForce, ForceSurroundings } from './force.ts';

/** Every kind of force: adding one touches its own file, its kernel and this list. */
export const FORCES: Record<ForceKind, (force: never, around: ForceSurroundings) => BoundForce> = {
  gravity,
  wind,
  drag,
  attraction,
  vortex,
  orbit,
  curl,
  jitter,
  push,
  limit,
  velocity,
  displacement,
};

export { swirlsOf, type Swirling } from './curl.ts';
export { inverseReach, type BoundForce, type ForceWriter, type Value } from './force.ts';
