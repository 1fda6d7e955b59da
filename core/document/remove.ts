import { listed, withoutItem, type Collection, type Id } from './collection.ts';
import type { Effect, Moment } from './effect.ts';
import { dropUnusedLook } from './look.ts';
import { atEffect } from './make.ts';

/** Takes a layer out of the lists of those something is for; what was for it alone goes with it. */
function withoutLayerIn<T>(all: Collection<T>, layersOf: (item: T) => Id[], id: Id): Collection<T> {
  let left = all;
  for (const { id: itemId, item } of listed(all)) {
    const layers = layersOf(item);
    const at = layers.indexOf(id);
    if (at < 0) continue;
    if (layers.length === 1) left = withoutItem(left, itemId);
    else layers.splice(at, 1);
  }
  return left;
}

/** Removes a layer from a draft of an effect, and whatever leads to it: nothing is left that means something else. */
export function removeLayer(draft: Effect, id: Id): void {
  const look = draft.layers.byId[id]?.look;
  draft.layers = withoutItem(draft.layers, id);
  if (look?.kind === 'named') dropUnusedLook(draft, look.look);
  draft.forces = withoutLayerIn(draft.forces, ({ layers }) => layers, id);
  draft.surfaces = withoutLayerIn(draft.surfaces, ({ layers }) => layers, id);
  for (const surface of listed(draft.surfaces))
    if (surface.item.kind === 'layer' && surface.item.layer === id)
      draft.surfaces = withoutItem(draft.surfaces, surface.id);
  const hangsOnIt = (moment: Moment | null) => moment?.after.kind === 'layer' && moment.after.layer === id;
  for (const { item } of listed(draft.layers)) {
    if (item.population.kind === 'follows' && item.population.layer === id) item.population = { kind: 'own' };
    if (item.inside === id) item.inside = null;
    for (const link of listed(item.links)) if (link.item.layer === id) item.links = withoutItem(item.links, link.id);
    if (item.source.kind === 'particles' && item.source.layer === id)
      item.source = { kind: 'point', place: atEffect([0, 1, 0]) };
    if (hangsOnIt(item.births.from)) item.births.from.after = { kind: 'border', border: 'start' };
    if (hangsOnIt(item.births.until)) item.births.until = null;
  }
}
