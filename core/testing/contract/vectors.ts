import {
  atEffect,
  burst,
  collectionOf,
  FORCE_KINDS,
  inWorld,
  newForce,
  newLink,
  newSurface,
  setNumber,
  SHAPE_KINDS,
  SHAPES,
  type Effect,
  type Force,
  type Layer,
} from '../../document/index.ts';
import { playAlone, type Instance } from '../../simulation/index.ts';
import { effectOf } from '../effects.ts';
import { ribbonVectors } from './ribbons.ts';
import { birthVectors } from './births.ts';
import { lookVectors } from './looks.ts';
import { stood } from './particles.ts';

/** An effect whose layer bears so many at once, upward from a point. */
function bearing(count: number, change: (layer: Layer, effect: Effect) => void): Effect {
  return effectOf((layer, effect) => {
    layer.source = { kind: 'point', place: atEffect([0.4, 1.2, -0.3]) };
    setNumber(layer, 'births.rate', 0);
    setNumber(layer, 'births.life', 5);
    layer.bursts = collectionOf([['all', burst('hold', 0, count)]]);
    layer.settings['motion.launch'].base = { kind: 'fixed', value: 'axis' };
    setNumber(layer, 'motion.opening', 0);
    setNumber(layer, 'motion.speed', 1);
    change(layer, effect);
  });
}
const after = (effect: Effect, steps: number): Instance => {
  const world = playAlone(effect, new Map());
  world.advance(steps);
  return world;
};

/** Each force by itself, on one particle, for a tenth of a second. */
export const forceVectors = () =>
  FORCE_KINDS.map((kind) => {
    const force = newForce(kind, atEffect([0, 1, 0.1])) as Force;
    const settings = force.settings as unknown as Record<string, { base: { value: unknown } }>;
    const changed = { strength: 2.5, pull: 1.5, lift: 0.5, x: 0.3, z: -0.2, fastest: 0.4, air: 0.7, halves: 0.02 };
    for (const [name, value] of Object.entries(changed)) if (settings[name]) settings[name].base.value = value;
    if (kind === 'curl') settings['drift']!.base.value = [0.2, 0, -0.1];
    const effect = bearing(1, (layer) => (layer.forces = collectionOf([['f', force]])));
    const set = Object.fromEntries(Object.entries(settings).map(([name, { base }]) => [name, base.value]));
    return { kind, id: 'f', seed: 7, at: [0, 1, 0.1], settings: set, step: 6, ...stood(after(effect, 6))[0]! };
  });

/** The first three births on each shape and each region of it, in random places, one step after they left outward. */
export const shapeVectors = () =>
  SHAPE_KINDS.flatMap((kind) =>
    (SHAPES[kind].hasRegions ? ['surface', 'volume', 'edge'] : ['surface']).map((region) => {
      const effect = bearing(3, (layer) => {
        layer.source = { kind, place: atEffect([0, 1, 0]) } as Layer['source'];
        layer.settings['source.region'].base = { kind: 'fixed', value: region };
        layer.settings['motion.launch'].base = { kind: 'fixed', value: 'outward' };
        setNumber(layer, 'source.radius', 0.7);
        setNumber(layer, 'source.thickness', 0.2);
      });
      return { kind, region, radius: 0.7, thickness: 0.2, step: 1, particles: stood(after(effect, 1)) };
    }),
  );

/** What becomes of one that falls onto the ground, by what the surface does. */
export const surfaceVectors = () =>
  (['bounce', 'slide', 'stick', 'die', 'keep'] as const).map((act) => {
    const effect = bearing(1, (layer, whole) => {
      const gravity = newForce('gravity');
      layer.forces = collectionOf([['fall', gravity]]);
      layer.settings['motion.velocity'].base = { kind: 'fixed', value: [1, -2, 0] };
      const ground = newSurface('ground', { place: inWorld() });
      ground.settings.act.base = { kind: 'fixed', value: act };
      whole.surfaces = collectionOf([['ground', ground]]);
    });
    const world = playAlone(effect, new Map());
    const steps = [30, 40, 60].map((step) => {
      world.advance(step);
      return { step, particles: stood(world) };
    });
    return { act, bounce: 50, friction: 20, offset: 0, gravity: 9.81, steps };
  });

/** Three sparks that each of two particles sets off as it dies. */
export function linkVectors() {
  const effect = bearing(2, (layer, whole) => {
    setNumber(layer, 'births.life', 0.25);
    const sparks = structuredClone(layer);
    sparks.salt = 77;
    sparks.bursts = collectionOf([]);
    setNumber(sparks, 'births.life', 2);
    const link = newLink('death', 'sparks', 9);
    link.settings.count.base = { kind: 'fixed', value: 3 };
    layer.links = collectionOf([['l', link]]);
    whole.layers = collectionOf([
      ['motes', layer],
      ['sparks', sparks],
    ]);
  });
  const world = after(effect, 30);
  const { key, count } = world.population('sparks')!;
  return {
    on: 'death',
    salt: 9,
    count: 3,
    step: 30,
    keys: [...key.slice(0, count)],
    particles: stood(world, 'sparks'),
  };
}

/** What a port can hold its formulas against: each by itself, in documents that have all else as by default. */
export const contractVectors = () => ({
  forces: forceVectors(),
  shapes: shapeVectors(),
  births: birthVectors(),
  surfaces: surfaceVectors(),
  links: linkVectors(),
  ribbons: ribbonVectors(),
  looks: lookVectors(),
});
