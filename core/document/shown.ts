import { listed, type Id } from '../settings/index.ts';
import type { Effect } from './schema/index.ts';

/** Whether the switch by which a layer is seen is on; without one it always is. */
export function isSwitchedOn({ layers, dials }: Pick<Effect, 'layers' | 'dials'>, id: Id): boolean {
  const by = layers.byId[id]!.seenBy;
  const dial = by === null ? undefined : dials.byId[by];
  return dial?.kind !== 'switch' || dial.value;
}

/** The layers that are drawn: not hidden, not switched off, and where some are seen alone, one of these. */
export function shownLayers(effect: Pick<Effect, 'layers' | 'dials'>): ReadonlySet<Id> {
  const all = listed(effect.layers);
  const isAnyAlone = all.some(({ item }) => item.solo);
  return new Set(
    all
      .filter(({ id, item }) => !item.hidden && (!isAnyAlone || item.solo) && isSwitchedOn(effect, id))
      .map(({ id }) => id),
  );
}
