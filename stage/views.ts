import type * as THREE from 'three';
import type { StageView } from './protocol.ts';

/** Views that draw particles in colours that tell something, in place of their looks. */
export const isColoured = (view: StageView): boolean => view !== 'picture' && view !== 'grey';

/** Views that are read by other programs: each layer has its number in place of a tone. */
export const isNumbered = (view: StageView): boolean =>
  ['distance', 'identity', 'bend', 'motion', 'normal'].includes(view);

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

/** Where the eye stands when a figure is as large in the picture as a game shows it, seen from the same side. */
function asAGameSees(position: readonly number[], target: readonly number[], fieldOfView: number): number[] {
  const way = position.map((value, axis) => value - target[axis]!);
  const scale = gameDistance(fieldOfView) / Math.max(1e-6, Math.hypot(...way));
  return target.map((value, axis) => value + way[axis]! * scale);
}

/** Where the eye of a scene stands and what it looks at, metres; degrees from top to bottom. */
export interface Eye {
  readonly position: readonly number[];
  readonly target: readonly number[];
  readonly fieldOfView: number;
}

/** Puts a camera where the eye is, `dx` and `dz` metres on with what it follows. */
export function placeCamera(
  camera: THREE.PerspectiveCamera,
  { position, target, fieldOfView }: Eye,
  shown: StageView,
  aspect: number,
  dx: number,
  dz: number,
): void {
  const [x, y, z] = shown === 'silhouette' ? asAGameSees(position, target, fieldOfView) : position;
  camera.fov = fieldOfView;
  camera.aspect = aspect;
  camera.position.set(x! + dx, y!, z! + dz);
  camera.lookAt(target[0]! + dx, target[1]!, target[2]! + dz);
  camera.updateProjectionMatrix();
  camera.updateMatrixWorld();
}
