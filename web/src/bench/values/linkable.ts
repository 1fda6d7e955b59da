import { lineageOf, listed, newLink, withItem, type Effect, type Id } from '@jinx/core/document';
import { whyNotMet } from '@jinx/core/simulation';

/** Whether a link from one layer to another would lead anywhere: it would not if it closed a circle. */
function isOpen(effect: Effect, from: Id, to: Id): boolean {
  const own = effect.layers.byId[from]!;
  const tried = { ...own, links: withItem(own.links, 'tried', newLink('death', to, 0)) };
  const layers = { ...effect.layers, byId: { ...effect.layers.byId, [from]: tried } };
  const [before, after] = [lineageOf(effect), lineageOf({ layers })];
  return after.refused.size === before.refused.size && after.unborn.size === before.unborn.size;
}

interface Choice {
  readonly value: Id;
  readonly text: string;
}

const ownLayers = (effect: Effect) => listed(effect.layers).filter(({ item }) => item.population.kind === 'own');

/** Layers that a link of `from` may lead to. */
export const layersAfter = (effect: Effect, from: Id): Choice[] =>
  ownLayers(effect)
    .filter(({ id }) => isOpen(effect, from, id))
    .map(({ id, item }) => ({ value: id, text: item.name }));

/** Layers on whose mesh `to` may be born. */
export const layersWithMesh = (effect: Effect, to: Id): Choice[] =>
  listed(effect.layers)
    .filter(({ id, item }) => id !== to && whyNotMet(item) === null)
    .map(({ id, item }) => ({ value: id, text: item.name }));

/** Layers on whose particles `to` may be born. */
export const layersBefore = (effect: Effect, to: Id): Choice[] =>
  ownLayers(effect)
    .filter(({ id }) => isOpen(effect, id, to))
    .map(({ id, item }) => ({ value: id, text: item.name }));
