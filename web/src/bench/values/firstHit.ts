import { atEffect, newHit, type Effect, type Hit } from '@jinx/core/document';

/** When the first hit of a list comes, seconds into its stretch. */
const AT = 0.2;

/** A first hit, before the middle of the effect: in the opening if that is long enough, else in the hold. */
export function firstHit({ stretches: { opening, hold } }: Pick<Effect, 'stretches'>): Hit {
  const stretch = opening > AT || hold.kind === 'none' ? 'opening' : 'hold';
  return newHit(stretch, Math.min(AT, stretch === 'opening' ? opening : AT), atEffect([0, 1, 0.5], [90, 0, 0]));
}
