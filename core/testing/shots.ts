import { burst, collectionOf, inWorld, setNumber, type Effect, type Layer, type Vector } from '../document/index.ts';
import { playAlone, type Instance, type PlayOptions } from '../simulation/index.ts';
import type { Rig } from '../geometry/index.ts';
import { effectOf } from './effects.ts';
import { kernelBytes } from './kernelBytes.ts';

export const SHOTS = 100_000;

/** An effect that shoots once, from all over a sphere at its middle, with no force. */
export function shotsAt(
  middle: Vector,
  distance: number,
  speed: readonly [number, number],
  shape: (layer: Layer, effect: Effect) => void,
): Effect {
  return effectOf((layer, effect) => {
    layer.source = { kind: 'sphere', place: inWorld(middle) };
    layer.aim = inWorld(middle);
    setNumber(layer, 'source.radius', distance);
    setNumber(layer, 'births.rate', 0);
    setNumber(layer, 'births.life', 60);
    setNumber(layer, 'births.cap', SHOTS);
    layer.bursts = collectionOf([['shots', burst('opening', 0, SHOTS)]]);
    setNumber(layer, 'motion.speed', speed);
    setNumber(layer, 'motion.opening', 30);
    layer.settings['motion.launch'].base = { kind: 'fixed', value: 'toward' };
    effect.stretches = { opening: 1, hold: { kind: 'continuing', seconds: 1 }, closing: 1, preRoll: 0 };
    shape(layer, effect);
  });
}

/** One impact, as a world tells it. */
export interface Impact {
  readonly step: number;
  /** Share of the step. */
  readonly share: number;
  readonly at: Vector;
  readonly normal: Vector;
  readonly strength: number;
}

/** Where a shot is and how it goes, at the end of a step. */
export type Sample = readonly [at: Vector, velocity: Vector];

/** Fires, calls `watch` after every step, and returns the impacts of each shot. */
export function fire(
  effect: Effect,
  rigs: ReadonlyMap<string, Rig>,
  steps: number,
  watch: (sample: (i: number) => Sample, count: number, world: Instance) => void,
  options: PlayOptions = {},
): Impact[][] {
  const world = playAlone(effect, rigs, {}, { kernels: kernelBytes(), budget: SHOTS, ...options });
  const impacts: Impact[][] = Array.from({ length: SHOTS }, () => []);
  for (let step = 0; step < steps; step++) {
    world.advance(step + 1);
    const hits = world.hits('motes')!;
    for (let n = 0; n < hits.count; n++) {
      const [x, y, z, nx, ny, nz] = hits.where.subarray(n * 6, n * 6 + 6) as unknown as number[];
      impacts[hits.particle[n]!]!.push({
        step,
        share: hits.share[n]!,
        at: [x!, y!, z!],
        normal: [nx!, ny!, nz!],
        strength: hits.strength[n]!,
      });
    }
    const { position, velocity, count } = world.population('motes')!;
    const sample = (i: number): Sample => [
      [position[0][i]!, position[1][i]!, position[2][i]!],
      [velocity[0][i]!, velocity[1][i]!, velocity[2][i]!],
    ];
    watch(sample, count, world);
  }
  return impacts;
}
