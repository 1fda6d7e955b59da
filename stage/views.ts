import type { StageView } from './protocol.ts';

/** Views that draw particles in colours that tell something, in place of their looks. */
export const isColoured = (view: StageView): boolean => view !== 'picture' && view !== 'grey';

/** From low to high, as sRGB hex: darker to lighter, so that it reads without hue too. */
export const RAMP = ['#2c4a9a', '#2f8f8e', '#8fb84a', '#f0cf5a', '#fff6dc'] as const;

/** Speeds at equal shares of the ramp, metres a second: each doubles what lies between. */
export const SPEEDS = [0, 1, 3, 7, 15] as const;

/** Hues that lie far apart from one layer to the next, as sRGB 0 to 1. */
export function layerTone(number: number): [number, number, number] {
  const hue = (number * 0.381966 + 0.12) % 1;
  const light = 0.62 + 0.1 * ((number % 3) - 1);
  const channel = (at: number) => {
    const k = (at + hue * 12) % 12;
    return light - 0.62 * Math.min(light, 1 - light) * Math.max(-1, Math.min(k - 3, 9 - k, 1));
  };
  return [channel(0), channel(8), channel(4)];
}

/** A figure of this height fills this share of the picture's height, seen from where a game sees it. */
export const GAME_FIGURE = { metres: 1.8, share: 1 / 6 } as const;

/** Metres from the eye at which that is so; `fieldOfView` in degrees from the lower edge to the upper. */
export const gameDistance = (fieldOfView: number): number =>
  GAME_FIGURE.metres / GAME_FIGURE.share / 2 / Math.tan((fieldOfView * Math.PI) / 360);
