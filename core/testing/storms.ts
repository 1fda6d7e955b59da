import {
  atEffect,
  burst,
  collectionOf,
  setNumber,
  type Effect,
  type Force,
  type NumberSetting,
  type Shaper,
  type Vector,
  type VectorSetting,
  settingsByName,
} from '../document/index.ts';
import { playAlone, type Instance, type PlayOptions } from '../simulation/index.ts';
import { effectOf } from './effects.ts';

/** Sets a number setting of a force in place, and returns the force. */
export function withNumber(
  force: Force,
  name: string,
  value: number | readonly [number, number],
  shaper?: Shaper,
): Force {
  const setting = settingsByName<NumberSetting>(force)[name]!;
  setting.base =
    typeof value === 'number' ? { kind: 'fixed', value } : { kind: 'spread', low: value[0], high: value[1] };
  if (shaper) setting.shapers = collectionOf([['shaper', shaper]]);
  return force;
}

/** Sets a vector or a choice of a force in place, and returns the force. */
export function withValue(force: Force, name: string, value: Vector | string): Force {
  settingsByName<VectorSetting>(force)[name]!.base = {
    kind: 'fixed',
    value: value as Vector,
  };
  return force;
}

/** Fifty particles born at once, still, on a sphere about a metre up; then these forces. */
export function under(
  forces: Force[],
  shape: (effect: Effect) => void = () => undefined,
  options: PlayOptions = {},
): Instance {
  const effect = effectOf((layer) => {
    layer.source = { kind: 'sphere', place: atEffect([0, 1, 0]) };
    setNumber(layer, 'births.rate', 0);
    setNumber(layer, 'births.life', 600);
    setNumber(layer, 'motion.speed', 0);
    layer.bursts = collectionOf([['all', burst('opening', 0, 50)]]);
    layer.forces = collectionOf(forces.map((force, i) => [`f${i}`, force]));
  });
  shape(effect);
  return playAlone(effect, new Map(), {}, options);
}

export type Point = [number, number, number];

export function vectorsOf(world: Instance, of: 'position' | 'velocity', layer = 'motes'): Point[] {
  const population = world.population(layer)!;
  return Array.from({ length: population.count }, (_, i) => population[of].map((axis) => axis[i]!) as Point);
}

export const distanceTo = (point: readonly number[]) => (p: readonly number[]) =>
  Math.hypot(...p.map((x, i) => x - point[i]!));
