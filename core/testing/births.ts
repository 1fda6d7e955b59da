import { burst, collectionOf, setNumber, type Effect, type Layer, type Vector } from '../document/index.ts';
import { effectOf, TUBE } from './effects.ts';
import { bendingTube } from './rigs.ts';
import type { Rig } from '../geometry/index.ts';
import { playAlone } from '../simulation/world/world.ts';
import type { Instance } from '../simulation/world/instance.ts';

/** A figure: a tube of two bones. */
export const rigs = new Map([[TUBE, bendingTube()]]);

/** Where a thousand particles are born at once, and how fast they leave. */
export function born(
  shape: (layer: Layer, effect: Effect) => void,
  things: ReadonlyMap<string, Rig> = rigs,
): {
  places: number[][];
  speeds: number[][];
  world: Instance;
} {
  const effect = effectOf((layer, whole) => {
    setNumber(layer, 'births.rate', 0);
    setNumber(layer, 'births.life', 30);
    setNumber(layer, 'motion.speed', 0);
    layer.bursts = collectionOf([['all', burst('opening', 0, 1000)]]);
    shape(layer, whole);
  });
  const world = playAlone(effect, things);
  world.advance(1);
  const population = world.population('motes')!;
  const rows = (of: 'from' | 'velocity') =>
    Array.from({ length: population.count }, (_, i) => population[of].map((axis) => axis[i]!));
  return { places: rows('from'), speeds: rows('velocity'), world };
}

export type Point = [number, number, number];
export const size = (p: readonly number[]) => Math.hypot(...p);

/** Sets a choice of a layer. */
export const choose = (
  layer: Layer,
  name: 'source.region' | 'source.order' | 'source.along' | 'motion.launch',
  value: string,
) => (layer.settings[name].base = { kind: 'fixed', value });
/** Sets a vector of a layer. */
export const vector = (
  layer: Layer,
  name: 'source.size' | 'source.stretch' | 'motion.axis' | 'motion.velocity',
  value: Vector,
) => (layer.settings[name].base = { kind: 'fixed', value });
