import { withItem, type Collection, type Colour, type Effect, type Stop } from '@jinx/core/document';
import { gradientInto, hexOfLinear, readyGradient, resolvedColour } from '@jinx/core/maths';

export const cssOf = (colour: Colour, effect: Effect): string =>
  'hex' in colour ? colour.hex : hexOfLinear(resolvedColour(effect.palette, colour));

/** A gradient with a stop more, of the colour it has there: nothing changes. */
export function withStopAt(
  stops: Collection<Stop>,
  id: string,
  x: number,
  life: number,
  palette: Effect['palette'],
): Collection<Stop> {
  const rgb = new Float64Array(3);
  gradientInto(readyGradient(stops, palette), x, life, rgb);
  return withItem(stops, id, { at: { anchor: 'share', value: x }, colour: { hex: hexOfLinear([...rgb]) } });
}
