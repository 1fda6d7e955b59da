import type { Colour, Effect } from '@jinx/core/document';
import { resolvedColour } from '@jinx/core/maths';

const encoded = (c: number) => (c <= 0.0031308 ? c * 12.92 : 1.055 * c ** (1 / 2.4) - 0.055);

/** #rrggbb of a linear colour, brightness beyond white cut off. */
export function hexOf(rgb: readonly number[]): string {
  return `#${rgb
    .map((c) =>
      Math.round(255 * Math.min(1, Math.max(0, encoded(Math.max(0, c)))))
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
}

export const cssOf = (colour: Colour, effect: Effect): string =>
  'hex' in colour ? colour.hex : hexOf(resolvedColour(effect.palette, colour));
