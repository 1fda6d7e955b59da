import { listed, type Collection, type Colour, type Palette, type Stop } from '../settings/index.ts';
import { fitToLife, placeOnLife, type Places } from './curves.ts';
import { cos, cubeRoot, radians, sin } from './functions.ts';
import { SRGB_TO_LINEAR } from './srgbTable.ts';
import type { Vec3 } from './vectors.ts';

/** Linear red, green and blue of #rrggbb. */
export function linearOf(hex: string): Vec3 {
  const value = parseInt(hex.slice(1), 16);
  return [SRGB_TO_LINEAR[value >> 16]!, SRGB_TO_LINEAR[(value >> 8) & 255]!, SRGB_TO_LINEAR[value & 255]!];
}

/** #rrggbb nearest to a linear colour; what is brighter than white is cut off. */
export const hexOfLinear = (rgb: readonly number[]): string =>
  `#${rgb.map((c) => nearestLevel(c).toString(16).padStart(2, '0')).join('')}`;

function nearestLevel(linear: number): number {
  let [low, high] = [0, 255];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (SRGB_TO_LINEAR[middle]! <= linear) low = middle;
    else high = middle;
  }
  return linear - SRGB_TO_LINEAR[low]! < SRGB_TO_LINEAR[high]! - linear ? low : high;
}

/** How much of what is seen as bright is red, green and blue: Rec. 709. */
const BRIGHT = [0.2126, 0.7152, 0.0722] as const;

/** How bright a linear colour is seen. */
export const brightnessOf = (rgb: ArrayLike<number>): number =>
  BRIGHT[0] * rgb[0]! + BRIGHT[1] * rgb[1]! + BRIGHT[2] * rgb[2]!;

/**
 * A linear colour with its hue turned by degrees about grey, as bright as before where it has room: the rotation of the
 * SVG standard's hueRotate, with the weights of Rec. 709. What would be darker than black is cut off.
 */
export function hueTurned(rgb: Vec3, degrees: number): Vec3 {
  if (degrees === 0) return rgb;
  const turned = cos(radians(degrees));
  const aside = sin(radians(degrees));
  const [r, g, b] = BRIGHT;
  const grey = brightnessOf(rgb);
  const across = [
    -r * rgb[0] - g * rgb[1] + (1 - b) * rgb[2],
    0.143 * rgb[0] + 0.14 * rgb[1] - 0.283 * rgb[2],
    -(1 - r) * rgb[0] + g * rgb[1] + b * rgb[2],
  ];
  const made = (c: number) => Math.max(0, grey + turned * (rgb[c]! - grey) + aside * across[c]!);
  return [made(0), made(1), made(2)];
}

/** Linear colour of a palette entry, its derivations followed. */
export function paletteColour(palette: Palette, id: string): Vec3 {
  const colour = palette.byId[id]!.colour;
  if (colour.kind === 'fixed') return linearOf(colour.hex);
  const base = hueTurned(paletteColour(palette, colour.from), colour.turned);
  const toward = colour.lighter > 0 ? 1 : 0;
  const share = Math.abs(colour.lighter);
  return [
    base[0] + (toward - base[0]) * share,
    base[1] + (toward - base[1]) * share,
    base[2] + (toward - base[2]) * share,
  ];
}

export const resolvedColour = (palette: Palette, colour: Colour): Vec3 =>
  'hex' in colour ? linearOf(colour.hex) : paletteColour(palette, colour.palette);

/** A linear colour in OKLab, whose straight ways look even (Ottosson, 2020, A perceptual color space for image processing). */
export function oklabOf([r, g, b]: Vec3): Vec3 {
  const l = cubeRoot(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = cubeRoot(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = cubeRoot(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ];
}

/** Writes the linear colour of one in OKLab; what is outside of all that can be shown is cut off at black. */
export function linearOfOklabInto(out: Float64Array, lightness: number, a: number, b: number): void {
  const l = lightness + 0.3963377774 * a + 0.2158037573 * b;
  const m = lightness - 0.1055613458 * a - 0.0638541728 * b;
  const s = lightness - 0.0894841775 * a - 1.291485548 * b;
  const [l3, m3, s3] = [l * l * l, m * m * m, s * s * s];
  out[0] = Math.max(0, 4.0767416621 * l3 - 3.3077115913 * m3 + 0.2309699292 * s3);
  out[1] = Math.max(0, -1.2684380046 * l3 + 2.6097574011 * m3 - 0.3413193965 * s3);
  out[2] = Math.max(0, -0.0041960863 * l3 - 0.7034186147 * m3 + 1.707614701 * s3);
}

/** A gradient ready to be read: stops in order of place. */
export interface ReadyGradient extends Places {
  /** Linear red, green and blue of each stop. */
  readonly rgb: Float64Array;
}

export function readyGradient(stops: Collection<Stop>, palette: Palette): ReadyGradient {
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
