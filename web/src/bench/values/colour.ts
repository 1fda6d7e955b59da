import { TinyColor } from '@ctrl/tinycolor';
import { listed, withItem, type Collection, type Colour, type Effect, type Stop } from '@jinx/core/document';
import { gradientInto, hexOfLinear, placeOnLife, readyGradient, resolvedColour } from '@jinx/core/maths';

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
  const opacity = opacityAt(stops, x, life);
  const stop = { at: { anchor: 'share' as const, value: x }, colour: { hex: hexOfLinear([...rgb]) } };
  return withItem(stops, id, opacity === 1 ? stop : { ...stop, opacity });
}

/** How opaque a gradient is at a place of a life of so many seconds: straight from stop to stop. */
export function opacityAt(stops: Collection<Stop>, x: number, life: number): number {
  const places = listed(stops)
    .map(({ item }) => ({ at: placeOnLife(item.at, life), opacity: item.opacity ?? 1 }))
    .sort((a, b) => a.at - b.at);
  const next = places.findIndex(({ at }) => at > x);
  const [a, b] = [places[next < 0 ? places.length - 1 : next - 1], places[next]];
  if (!a) return b?.opacity ?? 1;
  return b ? a.opacity + ((b.opacity - a.opacity) * (x - a.at)) / (b.at - a.at) : a.opacity;
}

/** A colour that was typed, as #rrggbb: in hexadecimal digits, by a name, or as rgb( ) or hsl( ); null for anything else. */
export function hexTyped(text: string): string | null {
  const colour = new TinyColor(text.trim());
  return colour.isValid && text.trim().length >= 3 ? colour.setAlpha(1).toHexString() : null;
}

/** Hue in degrees; saturation and value in percent. */
export interface Hsv {
  readonly h: number;
  readonly s: number;
  readonly v: number;
}
export function hsvOf(hex: string): Hsv {
  const { h, s, v } = new TinyColor(hex).toHsv();
  return { h, s: s * 100, v: v * 100 };
}
export const fromHsv = ({ h, s, v }: Hsv): string => new TinyColor({ h, s: s / 100, v: v / 100 }).toHexString();

/** The colours that a document holds, as #rrggbb: the ones that stand in most places first. */
export function coloursIn(effect: Effect): string[] {
  const counts = new Map<string, number>();
  const visit = (part: unknown): void => {
    if (typeof part !== 'object' || part === null) return;
    for (const [key, value] of Object.entries(part)) {
      if (key === 'hex' && typeof value === 'string') counts.set(value, (counts.get(value) ?? 0) + 1);
      else visit(value);
    }
  };
  visit(effect);
  return [...counts].sort(([, a], [, b]) => b - a).map(([hex]) => hex);
}
