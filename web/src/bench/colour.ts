import type { Colour, Effect } from '@jinx/core/document';
import { hexOfLinear, resolvedColour } from '@jinx/core/maths';

export const cssOf = (colour: Colour, effect: Effect): string =>
  'hex' in colour ? colour.hex : hexOfLinear(resolvedColour(effect.palette, colour));
