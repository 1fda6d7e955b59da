import { listed, type Id } from '../settings/index.ts';
import type { Effect, Layer, Link } from './schema/index.ts';

/** What a link may give from a particle to those that it sets off. */
export type Passed = 'colour' | 'size' | 'channels';

/** Whether a link ever passes a share on: it acts, and its share is not nothing for good. */
export function passes({ muted, settings }: Pick<Link, 'muted' | 'settings'>, what: Passed): boolean {
  const { base, shapers, muted: isSettingMuted } = settings[what];
  if (muted || isSettingMuted) return false;
  const isNothing = base.kind === 'fixed' && base.value === 0;
  return !isNothing || listed(shapers).some(({ item }) => !item.muted && item.combine !== 'multiply');
}

/** Whether a layer's particles begin with the colour of their parents, however much of it a link passes on. */
export const takesColour = ({ settings }: Pick<Layer, 'settings'>): boolean => {
  const { base, muted } = settings['life.colour'];
  return !muted && base.kind === 'taken' && base.from === 'parent';
};

/** Layers whose particles may begin with a colour, a size or channels of another; from one layer alone where it is given. */
export const takersOf = (effect: Pick<Effect, 'layers'>, what: Passed, from?: Id): Set<Id> => {
  const takes = (id: Id) => {
    const layer = effect.layers.byId[id];
    return layer !== undefined && takesColour(layer);
  };
  return new Set(
    listed(effect.layers).flatMap(({ id, item }) =>
      from === undefined || id === from
        ? listed(item.links).flatMap(({ item: link }) =>
            passes(link, what) || (what === 'colour' && !link.muted && takes(link.layer)) ? [link.layer] : [],
          )
        : [],
    ),
  );
};
