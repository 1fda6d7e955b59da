import {
  atEffect,
  type Effect,
  highestBase,
  type Id,
  type Link,
  newLayer,
  newLink,
  type Random32,
  setNumber,
  structuredCopy,
  surfacesFor,
  withItem,
} from '../document/index.ts';

/** How many are set off each time. */
const COUNT = { hit: 8, death: 6, birth: 1 } as const;

/**
 * When a layer sets another off unless somebody says otherwise: where its particles hit, if they meet anything; along a
 * written line as it is written.
 */
export function momentToSetOff(effect: Effect, parent: Id): keyof typeof COUNT {
  if (effect.layers.byId[parent]!.drawn.kind === 'strand') return 'birth';
  return surfacesFor(effect, parent).some(({ item }) => !item.muted) ? 'hit' : 'death';
}

/**
 * Adds a layer that the particles of another set off, in a draft: a few at a time that live short, in the colour of what they
 * come from. By itself it bears nothing.
 */
export function addSetOffLayer(
  draft: Effect,
  parent: Id,
  made: { readonly layer: Id; readonly link: Id },
  random: Random32,
): void {
  const from = draft.layers.byId[parent]!;
  const on = momentToSetOff(draft, parent);
  const layer = newLayer(`${from.name}, set off`.slice(0, 80), random());
  layer.source = { kind: 'point', place: atEffect() };
  layer.parent = from.parent;
  Object.assign(layer.settings['life.colour'], structuredCopy(from.settings['life.colour']));
  Object.assign(layer.settings['appearance.blend'], structuredCopy(from.settings['appearance.blend']));
  setNumber(layer, 'births.rate', 0);
  setNumber(layer, 'births.life', [0.3, 0.6]);
  setNumber(layer, 'motion.speed', [0.4, 1.2]);
  const size = highestBase(from.settings['life.size'].base, draft) ?? 0.04;
  setNumber(layer, 'life.size', Number((size / 2).toPrecision(3)));
  const link: Link = newLink(on, made.layer, random());
  link.settings.count.base = { kind: 'fixed', value: COUNT[on] };
  draft.layers = withItem(draft.layers, made.layer, layer, draft.layers.order.indexOf(parent));
  from.links = withItem(from.links, made.link, link);
}
