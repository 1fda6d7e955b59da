import { atBone, atThing, collectionOf, newEffect, newThing, type Effect, namedColour } from '@jinx/core/document';
import {
  colour,
  darkWater,
  flame,
  force,
  forces,
  hex,
  inAndOut,
  layer,
  layers,
  named,
  set,
  shimmer,
  standingLight,
  step,
  type KitAssets,
} from './build.ts';

const TALLOW = 'tallow';
/** Where the wick stands in the lamp she carries. */
const WICK = atBone(TALLOW, 'lamp', [0, -0.2, 0]);

/** Wick Flame: the flame of Tallow's lantern as she walks. */
export function wickFlame(kit: KitAssets): Effect {
  const effect = newEffect('Wick Flame', 11_983);
  effect.stretches = { opening: 0.4, hold: { kind: 'continuing', seconds: 3 }, closing: 0.5, preRoll: 0.6 };
  effect.palette = collectionOf([
    ['core', namedColour('Core', '#fff1c2')],
    ['flame', namedColour('Flame', '#ffb347')],
    ['ember', namedColour('Ember', '#ff6a1f')],
  ]);
  effect.stage.things = collectionOf([
    [TALLOW, { ...newThing('Tallow', kit['tallow']!), clip: 'walk', path: { kind: 'circle' as const, radius: 3 } }],
  ]);
  const tongues = flame('Tongues', 0x31c401, WICK);
  set(tongues, { 'motion.ride': 62, 'appearance.nudge': 0.25 });
  colour(tongues, [0, named('core')], [0.4, named('flame')], [1, named('ember')]);

  const heart = layer(
    'Heart',
    0x31c402,
    { kind: 'point', place: WICK },
    {
      'births.standing': 1,
      'motion.ride': 100,
      'life.size': {
        base: 0.17,
        over: [
          [0, 0.3],
          [0.12, 1],
          [0.88, 1],
          [1, 0.2],
        ],
        reads: 'effectTime',
      },
      'life.height': 150,
      'life.opacity': {
        base: 100,
        over: inAndOut(0.1, 0.9),
        reads: 'effectTime',
      },
      'life.intensity': 2.2,
      'appearance.facing': 'upright',
      'appearance.pivotAlong': 16,
      'appearance.nudge': 0.25,
    },
    step('warp', { strength: 10, grains: 2, change: 2.2 }),
    step('drawn', { shape: 'soft dot', softness: 55 }),
  );
  colour(heart, [0, named('core')]);

  const wisps = layer(
    'Wisps',
    0x31c403,
    { kind: 'sphere', place: WICK },
    {
      'source.radius': 0.05,
      'births.rate': 13,
      'births.life': [0.7, 1.3],
      'motion.launch': 'axis',
      'motion.speed': [0.4, 0.8],
      'motion.opening': 26,
      'motion.ride': 20,
      'life.size': {
        base: [0.07, 0.13],
        over: [
          [0, 0.6],
          [0.3, 1],
          [1, 0.4],
        ],
      },
      'life.height': 190,
      'life.opacity': {
        base: 62,
        over: inAndOut(0.2),
      },
      'life.intensity': 1.2,
      'life.aligned': true,
      'appearance.blend': 'mixed',
      'appearance.covers': 20,
    },
    step('warp', { strength: 34, grains: 2, change: 1.2 }),
    step('drawn', { shape: 'streak', width: 34, softness: 70 }),
  );
  colour(wisps, [0, named('flame')], [0.5, named('ember')], [1, hex('#5a1a08')]);
  forces(
    wisps,
    force('gravity', null, { strength: -1.5 }),
    force('curl', null, { strength: 3, size: 0.3, change: 1 }),
    force('drag', null, { strength: 1.2 }),
  );

  const sparks = layer(
    'Sparks',
    0x31c404,
    { kind: 'sphere', place: WICK },
    {
      'source.radius': 0.04,
      'births.rate': 9,
      'births.life': [0.6, 1.4],
      'motion.launch': 'axis',
      'motion.speed': [0.5, 1.2],
      'motion.opening': 40,
      'motion.ride': 15,
      'life.size': {
        base: [0.01, 0.02],
        over: [
          [0, 1],
          [1, 0.3],
        ],
      },
      'life.opacity': {
        base: 100,
        over: [
          [0, 0],
          [0.04, 1],
          [0.7, 0.8],
          [1, 0],
        ],
      },
      'life.intensity': [2.4, 4],
      'appearance.facing': 'motion',
      'appearance.lengthening': 0.03,
    },
    step('drawn', { shape: 'soft dot', softness: 40 }),
  );
  colour(sparks, [0, named('core')], [1, named('ember')]);
  forces(
    sparks,
    force('gravity', null, { strength: -0.6 }),
    force('curl', null, { strength: 3.4, size: 0.25, change: 1.4 }),
    force('drag', null, { strength: 1.6 }),
  );

  const halo = layer(
    'Halo',
    0x31c405,
    { kind: 'point', place: WICK },
    {
      'births.standing': 1,
      'motion.ride': 100,
      'life.size': {
        base: 1.15,
        over: [
          [0, 0.4],
          [0.12, 1],
          [0.88, 1],
          [1, 0.4],
        ],
        reads: 'effectTime',
      },
      'life.opacity': {
        base: 20,
        over: inAndOut(0.12, 0.88),
        reads: 'effectTime',
      },
    },
    step('drawn', { shape: 'soft dot', softness: 60 }),
  );
  colour(halo, [0, named('flame')]);

  const smoke = layer(
    'Soot',
    0x31c406,
    { kind: 'sphere', place: WICK },
    {
      'source.radius': 0.03,
      'births.rate': 10,
      'births.life': [1, 1.7],
      'motion.launch': 'axis',
      'motion.speed': [0.5, 0.8],
      'motion.opening': 10,
      'motion.ride': 10,
      'life.size': {
        base: [0.14, 0.24],
        over: [
          [0, 0.3],
          [1, 1.2],
        ],
      },
      'life.opacity': {
        base: 24,
        over: inAndOut(0.35),
      },
      'life.angle': [-180, 180],
      'appearance.blend': 'normal',
    },
    step('drawn', { shape: 'soft dot', softness: 20 }),
    step('drawn', { shape: 'clouds', grains: 2.6, softness: 70, amount: 85 }),
  );
  colour(smoke, [0, hex('#2a1c14')], [1, hex('#1b1a19')]);
  forces(
    smoke,
    force('gravity', null, { strength: -0.8 }),
    force('curl', null, { strength: 1.6, size: 0.35, change: 0.8 }),
    force('drag', null, { strength: 1 }),
  );

  const light = standingLight(
    'Light of the wick',
    0x31c407,
    WICK,
    2.6,
    [
      [0, 0],
      [0.1, 1],
      [0.22, 0.86],
      [0.3, 1.05],
      [0.46, 0.9],
      [0.6, 1.08],
      [0.75, 0.88],
      [0.9, 1],
      [1, 0],
    ],
    named('flame'),
    { reach: 3.6, surfaces: 1, fog: 1 },
  );
  layers(effect, {
    sparks,
    heart,
    tongues,
    wisps,
    halo,
    smoke,
    shimmer: shimmer('Light on the water', 0x31c409, atThing(TALLOW), 5.2, named('flame'), 36),
    water: darkWater('Dark water', 0x31c408, atThing(TALLOW), 5.7, {}, '#241f24'),
    light,
  });
  return effect;
}
