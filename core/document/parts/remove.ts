import { withoutItem, type Id } from '../../settings/index.ts';
import type { Effect } from '../schema/index.ts';
import { refsTo } from './foundRefs.ts';
import { dropUnusedLook } from '../namedLooks.ts';

/** Removes a layer from a draft of an effect, and whatever leads to it: nothing is left that means something else. */
export function removeLayer(draft: Effect, id: Id): void {
  const look = draft.layers.byId[id]?.look;
  draft.layers = withoutItem(draft.layers, id);
  if (look?.kind === 'named') dropUnusedLook(draft, look.look);
  for (const found of refsTo(draft, 'layers', id)) found.letGo();
}
