import { listed, type Collection, type Colour, type Effect, type Stop } from '../document/index.ts';
import { placeOnLife } from './curves.ts';
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

/** A gradient ready to be read. */
export interface ReadyGradient {
  readonly stops: readonly { readonly at: Stop['at']; readonly rgb: Vec3 }[];
}

export function readyGradient(stops: Collection<Stop>, palette: Effect['palette']): ReadyGradient {
  const ready = listed(stops).map(({ item }) => ({ at: item.at, rgb: resolvedColour(palette, item.colour) }));
  ready.sort((a, b) => placeOnLife(a.at, 1) - placeOnLife(b.at, 1));
  return { stops: ready };
}

/** Writes the gradient's linear colour at `x` of a life of `life` seconds; white when it has no stops. */
export function gradientInto(gradient: ReadyGradient, x: number, life: number, out: Float64Array): void {
  const { stops } = gradient;
  if (stops.length === 0) {
    out.fill(1);
    return;
  }
  let left = stops[0]!;
  let leftX = placeOnLife(left.at, life);
  if (x <= leftX) {
    out.set(left.rgb);
    return;
  }
  for (let i = 1; i < stops.length; i++) {
    const right = stops[i]!;
    const rightX = Math.max(leftX, placeOnLife(right.at, life));
    if (x < rightX) {
      const t = (x - leftX) / (rightX - leftX);
      for (let c = 0; c < 3; c++) out[c] = left.rgb[c]! + (right.rgb[c]! - left.rgb[c]!) * t;
      return;
    }
    left = right;
    leftX = rightX;
  }
  out.set(left.rgb);
}
