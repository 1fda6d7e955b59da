import {
  areShapedBy,
  forcesOn,
  listed,
  ownerOf,
  stepsOf,
  surfacesFor,
  type Effect,
  type Id,
  type Layer,
} from '../../document/index.ts';

const isShaped = (settings: object): boolean => areShapedBy(settings, ['distance']);

function dressIsShaped(effect: Effect, layer: Layer): boolean {
  const { settings, channels, drawn } = layer;
  return (
    isShaped(settings) ||
    isShaped(channels.byId) ||
    (drawn.kind !== 'sprite' && isShaped(drawn.settings)) ||
    stepsOf(effect, layer).some(({ item }) => isShaped(item.settings))
  );
}

/** The layers of whose particles something is shaped by how far they have travelled: then that is kept. */
export function keepDistance(effect: Effect): ReadonlySet<Id> {
  const layers = new Set<Id>();
  for (const { id, item } of listed(effect.layers)) {
    if (dressIsShaped(effect, item)) layers.add(ownerOf(effect, id));
    if (
      forcesOn(effect, id).some((force) => isShaped(force.item.settings)) ||
      listed(item.links).some((link) => isShaped(link.item.settings)) ||
      surfacesFor(effect, id).some((surface) => isShaped(surface.item.settings))
    )
      layers.add(id);
  }
  return layers;
}
