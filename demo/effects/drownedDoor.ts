import {
  atEffect,
  collectionOf,
  inWorld,
  newEffect,
  newRibbon,
  newThing,
  type Effect,
  type Vector,
  namedColour,
  setWidthAlong,
} from '@jinx/core/document';
import {
  colour,
  drawn,
  force,
  forces,
  gradient,
  hex,
  inAndOut,
  layer,
  layers,
  named,
  step,
  type KitAssets,
} from './build.ts';

/** The door stands upright, its middle a little above a warden's waist; its ring goes about Z. */
const MIDDLE: Vector = [0, 1.12, 0];
const DOOR = atEffect(MIDDLE);
const RING = atEffect(MIDDLE, [90, 0, 0]);
const AXIS: Vector = [0, 0, 1];
const RADIUS = 0.95;

/** Drowned Door: water pulled open into a standing oval, with an eddy of ribbons, a bent view and drops that climb. */
export function drownedDoor(kit: KitAssets): Effect {
  const effect = newEffect('Drowned Door', 23_909);
  effect.stretches = { opening: 1.1, hold: { kind: 'continuing', seconds: 4 }, closing: 1, preRoll: 0 };
  effect.palette = collectionOf([
    ['water', namedColour('Water', '#4fc4d6')],
    ['foam', namedColour('Foam', '#e2fbff')],
    ['deep', namedColour('Deep', '#0b3550')],
  ]);
  effect.stage.things = collectionOf([
    ['sedge', { ...newThing('Sedge', kit['sedge']!), clip: 'cast', at: [1.3, 0, 0.3] as Vector, facing: -70 }],
  ]);
  const opened = {
    over: [
      [0, 0],
      [0.1, 0.25],
      [0.2, 1.06],
      [0.25, 1],
      [0.83, 1],
      [1, 0],
    ] as const,
    reads: 'effectTime' as const,
  };
  const seen = {
    over: inAndOut(0.12, 0.84),
    reads: 'effectTime' as const,
  };

  const pool = layer(
    'Pool',
    0xd00201,
    { kind: 'point', place: DOOR },
    {
      'births.standing': 1,
      'life.size': { base: RADIUS * 2.02, ...opened },
      'life.height': 118,
      'life.opacity': { base: 96, ...seen },
      'appearance.facing': 'own frame',
      'appearance.blend': 'normal',
    },
    step('warp', { strength: 5, grains: 4, change: 0.8, varied: false }),
    step('drawn', { shape: 'disc', softness: 25 }),
    gradient('out from the middle', [0, '#01060c'], [0.45, '#03202f'], [0.8, '#0a5a70'], [1, '#bff4fa']),
  );
  colour(pool, [0, hex('#ffffff')]);

  const depths = layer(
    'Light in the depths',
    0xd00202,
    { kind: 'point', place: atEffect([0, 1.12, -0.02]) },
    {
      'births.standing': 1,
      'life.size': { base: RADIUS * 2.3, ...opened },
      'life.opacity': { base: 34, ...seen },
      'life.intensity': 0.8,
      'life.turning': 9,
      'appearance.facing': 'own frame',
      'appearance.depth': 'never hidden',
    },
    step('scroll', { along: 0.04, repeatAcross: 1.2, repeatAlong: 1.2 }),
    step('warp', { strength: 30, grains: 2.6, change: 0.3, varied: false }),
    step('drawn', { shape: 'cells', grains: 3.4, softness: 100, change: 0.25, varied: false }),
    step('levels', { onto: 'opacity', black: 17, white: 0 }),
  );
  depths.inside = 'pool';
  colour(depths, [0, named('water')]);

  const stars = layer(
    'Motes in the depths',
    0xd00203,
    { kind: 'disc', place: RING },
    {
      'source.radius': RADIUS,
      'source.region': 'volume',
      'births.rate': { base: 60, ...seen },
      'births.life': [1.2, 2],
      'life.size': {
        base: [0.012, 0.045],
        over: [
          [0, 0.2],
          [0.6, 0.7],
          [1, 1.3],
        ],
      },
      'life.opacity': {
        base: 100,
        over: inAndOut(0.3, 0.8),
      },
      'life.intensity': [1.2, 2.6],
      'appearance.depth': 'never hidden',
    },
    step('drawn', { shape: 'soft dot', softness: 50 }),
  );
  stars.inside = 'pool';
  colour(stars, [0, named('deep')], [0.5, named('water')], [1, named('foam')]);
  forces(
    stars,
    force('vortex', DOOR, { strength: 0.9, pull: -0.35, axis: AXIS }),
    force('drag', null, { strength: 0.8 }),
  );

  const bent = drawn(
    layer(
      'Bent view',
      0xd00204,
      { kind: 'point', place: atEffect([0, 1.12, 0.06]) },
      {
        'births.standing': 1,
        'life.size': { base: RADIUS * 2.9, ...opened },
        'life.height': 116,
        'life.opacity': { base: 100, ...seen },
        'appearance.facing': 'own frame',
      },
      step('drawn'),
    ),
    'haze',
    { strength: 7, inner: 50, outer: 100, softness: 75, bends: 'in waves', tinted: 22 },
  );
  colour(bent, [0, hex('#a6e6ee')]);

  const eddy = layer(
    'Eddy',
    0xd00205,
    { kind: 'ring', place: RING },
    {
      'source.radius': { base: RADIUS, ...opened },
      'source.thickness': 0.07,
      'births.rate': { base: 30, ...seen },
      'births.life': [0.9, 1.6],
      'births.cap': 400,
      'motion.launch': 'tangent',
      'motion.speed': [1.6, 2.6],
      'life.size': {
        base: [0.03, 0.085],
        over: [
          [0, 0.3],
          [0.25, 1],
          [1, 0.2],
        ],
      },
      'life.opacity': {
        base: 78,
        over: [
          [0, 0],
          [0.2, 1],
          [0.75, 0.8],
          [1, 0],
        ],
      },
      'life.intensity': [0.8, 1.7],
      'appearance.blend': 'mixed',
      'appearance.covers': 45,
    },
    gradient('across', [0, '#0a4056'], [0.5, '#ffffff'], [1, '#0a4056']),
    step('drawn', { shape: 'clouds', grains: 3, softness: 90, amount: 50 }),
  );
  eddy.drawn = newRibbon('trail');
  if (eddy.drawn.kind === 'trail') {
    eddy.drawn.settings.lasts.base = { kind: 'fixed', value: 0.55 };
    eddy.drawn.settings.every.base = { kind: 'fixed', value: 0.05 };
    setWidthAlong(eddy.drawn, 100, 0, 160);
  }
  colour(eddy, [0, named('foam')], [0.4, named('water')], [1, named('deep')]);
  forces(
    eddy,
    force('orbit', DOOR, { distance: [RADIUS * 0.94, RADIUS * 1.14], speed: [1.5, 2.5], halves: 0.032, axis: AXIS }),
    force('curl', null, { strength: 1.2, size: 0.5, change: 0.6 }),
  );

  const rim = layer(
    'Rim of foam',
    0xd00206,
    { kind: 'point', place: atEffect([0, 1.12, 0.03]) },
    {
      'births.standing': 2,
      'life.size': { base: [RADIUS * 2.1, RADIUS * 2.24], ...opened },
      'life.height': 117,
      'life.opacity': { base: 78, ...seen },
      'life.intensity': 0.9,
      'life.turning': [-34, 34],
      'appearance.facing': 'own frame',
      'appearance.blend': 'mixed',
      'appearance.covers': 50,
    },
    step('warp', { strength: 9, grains: 5, change: 0.9 }),
    step('drawn', { shape: 'ring', width: 13, softness: 70 }),
    step('drawn', { shape: 'clouds', grains: 8, softness: 60, change: 0.5, amount: 75 }),
  );
  colour(rim, [0, named('foam')]);

  const drops = layer(
    'Drops that climb',
    0xd00207,
    { kind: 'disc', place: atEffect([0, 0.02, 0.1]) },
    {
      'source.radius': 0.85,
      'source.region': 'volume',
      'births.rate': { base: 85, ...seen },
      'births.life': [0.8, 1.4],
      'motion.launch': 'axis',
      'motion.speed': [0.2, 0.6],
      'life.size': {
        base: [0.016, 0.036],
        over: [
          [0, 0.3],
          [0.3, 1],
          [1, 0.4],
        ],
      },
      'life.opacity': {
        base: 100,
        over: inAndOut(0.15, 0.85),
      },
      'life.intensity': [1, 2],
      'appearance.facing': 'motion',
      'appearance.lengthening': 0.05,
      'appearance.blend': 'mixed',
      'appearance.covers': 40,
    },
    step('drawn', { shape: 'soft dot', softness: 35 }),
  );
  colour(drops, [0, named('deep')], [0.4, named('water')], [1, named('foam')]);
  forces(
    drops,
    force('attraction', DOOR, { toward: 'line', axis: [0, 1, 0] as Vector, length: 1.8, strength: 1.4 }),
    force('gravity', null, { strength: -1.9 }),
    force('vortex', DOOR, { strength: 0.9 }),
    force('drag', null, { strength: 0.7 }),
  );

  const wet = layer(
    'Wet ground',
    0xd00208,
    { kind: 'point', place: inWorld([0, 0, 0.1]) },
    {
      'births.standing': 1,
      'life.size': { base: 4.8, ...opened },
      'life.opacity': { base: 72, ...seen },
      'appearance.facing': 'ground',
      'appearance.blend': 'multiply',
    },
    step('warp', { strength: 16, grains: 3, change: 0.1 }),
    step('drawn', { shape: 'disc', softness: 70 }),
  );
  colour(wet, [0, hex('#12303a')]);

  const ripples = layer(
    'Ripples',
    0xd00209,
    { kind: 'point', place: inWorld([0, 0, 0.1]) },
    {
      'births.rate': { base: 2.2, ...seen },
      'births.life': 1.6,
      'life.size': {
        base: [1.6, 3],
        over: [
          [0, 0.1],
          [0.5, 0.7],
          [1, 1],
        ],
      },
      'life.opacity': {
        base: 55,
        over: inAndOut(0.15),
      },
      'appearance.facing': 'ground',
    },
    step('warp', { strength: 6, grains: 4, change: 0.6 }),
    step('drawn', { shape: 'ring', width: 6, softness: 70 }),
  );
  colour(ripples, [0, named('water')]);

  const light = drawn(
    layer(
      'Light of the door',
      0xd0020a,
      { kind: 'point', place: atEffect([0, 0.9, 0.55]) },
      {
        'births.standing': 1,
        'life.intensity': {
          base: 3.2,
          over: [
            [0, 0],
            [0.2, 1],
            [0.3, 1.1],
            [0.5, 0.85],
            [0.7, 1.05],
            [0.84, 1],
            [1, 0],
          ],
          reads: 'effectTime',
        },
      },
    ),
    'light',
    { reach: 3.4 },
  );
  colour(light, [0, named('water')]);
  layers(effect, { drops, eddy, rim, bent, stars, depths, pool, ripples, wet, light });
  return effect;
}
