import { listed, type Id } from '../settings/index.ts';
import type { Effect, Link } from './schema/index.ts';

/** What a link may give from a particle to those that it sets off. */
export type Passed = 'colour' | 'size' | 'channels';

/** Whether a link ever passes a share on: it acts, and its share is not nothing for good. */
export function passes({ muted, settings }: Pick<Link, 'muted' | 'settings'>, what: Passed): boolean {
  const { base, shapers, muted: isSettingMuted } = settings[what];
  if (muted || isSettingMuted) return false;
  const isNothing = base.kind === 'fixed' && base.value === 0;
  return !isNothing || listed(shapers).some(({ item }) => !item.muted && item.combine !== 'multiply');
}

/** Layers whose particles may begin with a colour, a size or channels of another; from one layer alone where it is given. */
export const takersOf = (effect: Pick<Effect, 'layers'>, what: Passed, from?: Id): Set<Id> =>
  new Set(
    listed(effect.layers).flatMap(({ id, item }) =>
      from === undefined || id === from
        ? listed(item.links).flatMap(({ item: link }) => (passes(link, what) ? [link.layer] : []))
        : [],
    ),
  );
