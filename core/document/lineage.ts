import { listed, type Id } from '../settings/index.ts';
import type { Effect } from './schema/index.ts';

/** In which order layers are stepped, so that whoever sets off births is stepped before those it sets off. */
export interface Lineage {
  /** Layers with particles of their own. */
  readonly order: readonly Id[];
  /** Links that would make a layer's particles set off their own kind, as "layer/link": they do nothing. */
  readonly refused: ReadonlySet<string>;
  /** Layers born on particles that come of their own: they bear nothing. */
  readonly unborn: ReadonlySet<Id>;
}

interface Edge {
  readonly to: Id;
  readonly name: string | null;
}

/**
 * Sorts layers by what sets off what, and by salt where nothing does. Of links in a circle the one that closes it, walked
 * by salt, is refused.
 */
export function lineageOf(effect: Pick<Effect, 'layers'>): Lineage {
  const own = listed(effect.layers)
    .filter(({ item }) => item.population.kind === 'own')
    .sort((a, b) => a.item.salt - b.item.salt || (a.id < b.id ? -1 : 1));
  const isOwn = new Set(own.map(({ id }) => id));
  const edgesOf = new Map<Id, Edge[]>(own.map(({ id }) => [id, []]));
  for (const { id, item } of own) {
    for (const link of listed(item.links).sort((a, b) => (a.id < b.id ? -1 : 1)))
      if (!link.item.muted && isOwn.has(link.item.layer))
        edgesOf.get(id)!.push({ to: link.item.layer, name: `${id}/${link.id}` });
    if (item.source.kind === 'particles') edgesOf.get(item.source.layer)?.push({ to: id, name: null });
  }
  const refused = new Set<string>();
  const unborn = new Set<Id>();
  const state = new Map<Id, 'open' | 'done'>();
  const backwards: Id[] = [];
  const walk = (id: Id): void => {
    state.set(id, 'open');
    for (const { to, name } of edgesOf.get(id)!) {
      if (state.get(to) === 'open') {
        if (name === null) unborn.add(to);
        else refused.add(name);
      } else if (!state.has(to)) walk(to);
    }
    state.set(id, 'done');
    backwards.push(id);
  };
  // Walked backwards, since who is walked last comes first.
  for (const { id } of [...own].reverse()) if (!state.has(id)) walk(id);
  return { order: backwards.reverse(), refused, unborn };
}
