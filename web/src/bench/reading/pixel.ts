import { brightnessOf, hexOfLinear } from '@jinx/core/maths';
import type { PixelColour } from '@jinx/stage';
import { plainNumber } from '../entry/numbers';

/** The lens's tone curve (Narkowicz, 2015), so that a swatch is seen as the stage shows it. */
const toned = (c: number): number =>
  Math.min(1, Math.max(0, (c * (2.51 * c + 0.03)) / (c * (2.43 * c + 0.59) + 0.14)));

/** A pixel's colour before the lens, as #rrggbb as the screen has it; `exposure` in doublings of the light. */
export const seenHex = ([red, green, blue]: PixelColour, exposure: number): string =>
  hexOfLinear([red, green, blue].map((c) => toned(Math.max(0, c) * 2 ** exposure)));

/** Differences of brightness that no one sees. */
const UNSEEN = 0.002;

/** What a layer does to a pixel, in words: light is told as a share of the screen's white. */
export function doneTo(before: PixelColour, after: PixelColour): string {
  const [from, to] = [brightnessOf(before), brightnessOf(after)];
  if (Math.abs(to - from) < UNSEEN) return 'gives it another hue';
  return to > from
    ? `makes it brighter by ${plainNumber(to - from)}`
    : `makes it darker by ${plainNumber(from - to)}`;
}
