import { diff, LAYER_SETTINGS, type Acts, type Change, type Effect } from '@jinx/core/document';

/** What a change reaches: nothing computed, only how particles are dressed, or their state. */
export type Reach = 'nothing' | 'dress' | 'state';

const RANK: Record<Reach, number> = { nothing: 0, dress: 1, state: 2 };
const ofActs = (acts: Acts): Reach => (acts === 'dress' ? 'dress' : 'state');

/** Fields of a layer that decide only what is seen or how it is worked on. */
const SHOWN_ONLY = new Set(['name', 'hidden', 'solo', 'locked']);

function reachOf({ path }: Change): Reach {
  const [first, , id, part, name] = path;
  if (first === 'name' || first === 'schema') return 'nothing';
  if (first === 'palette') return 'dress';
  if (first === 'stage') return path[1] === 'surround' ? 'nothing' : 'state';
  if (first !== 'layers') return 'state';
  if (path[1] === 'order' || id === undefined) return path[1] === 'order' ? 'dress' : 'state';
  if (part === undefined) return 'state';
  if (SHOWN_ONLY.has(part)) return 'nothing';
  if (part === 'settings' && name) return ofActs(LAYER_SETTINGS[name as keyof typeof LAYER_SETTINGS]?.acts ?? 'step');
  return 'state';
}

/** The furthest that the difference between two documents reaches. */
export function reachBetween(before: Effect, after: Effect): Reach {
  return diff(before, after).reduce<Reach>((reach, change) => {
    const other = reachOf(change);
    return RANK[other] > RANK[reach] ? other : reach;
  }, 'nothing');
}
