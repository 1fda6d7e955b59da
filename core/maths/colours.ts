import { listed, type Collection, type Colour, type Effect, type Stop } from '../document/index.ts';
import { fitToLife, placeOnLife, type Places } from './curves.ts';
import { SRGB_TO_LINEAR } from './srgbTable.ts';
import type { Vec3 } from './vectors.ts';

/** Linear red, green and blue of #rrggbb. */
export function linearOf(hex: string): Vec3 {
  const value = parseInt(hex.slice(1), 16);
  return [SRGB_TO_LINEAR[value >> 16]!, SRGB_TO_LINEAR[(value >> 8) & 255]!, SRGB_TO_LINEAR[value & 255]!];
}

/** Linear colour of a palette entry, its derivations followed. */
export function paletteColour(palette: Effect['palette'], id: string): Vec3 {
  const colour = palette.byId[id]!.colour;
  if (colour.kind === 'fixed') return linearOf(colour.hex);
  const base = paletteColour(palette, colour.from);
  const toward = colour.lighter > 0 ? 1 : 0;
  const share = Math.abs(colour.lighter);
  return [
    base[0] + (toward - base[0]) * share,
    base[1] + (toward - base[1]) * share,
    base[2] + (toward - base[2]) * share,
  ];
}

export const resolvedColour = (palette: Effect['palette'], colour: Colour): Vec3 =>
  'hex' in colour ? linearOf(colour.hex) : paletteColour(palette, colour.palette);

/** A gradient ready to be read: stops in order of place. */
export interface ReadyGradient extends Places {
  /** Linear red, green and blue of each stop. */
  readonly rgb: Float64Array;
}

export function readyGradient(stops: Collection<Stop>, palette: Effect['palette']): ReadyGradient {
  const items = listed(stops).map(({ item }) => item);
  items.sort((a, b) => placeOnLife(a.at, 1) - placeOnLife(b.at, 1));
  return {
    relative: items.every(({ at }) => at.anchor === 'share'),
    places: items.map(({ at }) => at),
    x: Float64Array.from(items, ({ at }) => at.value),
    rgb: Float64Array.from(items.flatMap(({ colour }) => resolvedColour(palette, colour))),
  };
}

/** Writes the gradient's linear colour at `x` of a life of `life` seconds; white when it has no stops. */
export function gradientInto(gradient: ReadyGradient, x: number, life: number, out: Float64Array): void {
  const { x: xs, rgb } = gradient;
  const count = xs.length;
  if (count === 0) {
    out.fill(1);
    return;
  }
  fitToLife(gradient, life);
  let right = 0;
  while (right < count && x >= xs[right]!) right++;
  const left = right === 0 ? 0 : right - 1;
  const t = right === 0 || right === count ? 0 : (x - xs[left]!) / (xs[right]! - xs[left]!);
  const to = right === count ? left : right;
  for (let c = 0; c < 3; c++) {
    const from = rgb[left * 3 + c]!;
    out[c] = from + (rgb[to * 3 + c]! - from) * t;
  }
}
