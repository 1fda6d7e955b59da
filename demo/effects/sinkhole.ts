import {
  burst,
  collectionOf,
  inWorld,
  newEffect,
  newRibbon,
  newSurface,
  newThing,
  type Effect,
  type Surface,
  type Vector,
  namedColour,
} from '@jinx/core/document';
import {
  colour,
  darkWater,
  drawn,
  force,
  forces,
  gradient,
  hex,
  inAndOut,
  layer,
  layers,
  meshes,
  named,
  shimmer,
  step,
  type KitAssets,
} from './build.ts';

const MIDDLE = inWorld([-0.2, 0, -0.35]);
/** It is open from here to there, shares of the effect's time; then it chokes. */
const OPEN = [
  [0, 0],
  [0.06, 0.06],
  [0.3, 1],
  [0.66, 1],
  [0.74, 0.5],
  [0.8, 0.06],
  [1, 0],
] as const;
/** Its throat heaves up, and sinks again. */
const CHOKING = [
  [0, 0],
  [0.6, 0],
  [0.63, 0],
  [0.7, 1],
  [0.8, 0.7],
  [1, 0],
] as const;
const [WIDE, DEEP] = [2.35, 55];
const CHOKES = 3.05;

function sliding(surface: Extract<Surface, { kind: 'layer' }>): Surface {
  surface.settings.act.base = { kind: 'fixed', value: 'slide' };
  surface.settings.side.base = { kind: 'fixed', value: 'both' };
  surface.settings.friction.base = { kind: 'fixed', value: 8 };
  return surface;
}

/** Sinkhole: the ground sags to a funnel; silt runs down it in a spiral, dragging roots; it chokes and throws all back up. */
export function sinkhole(kit: KitAssets): Effect {
  const effect = newEffect('Sinkhole', 19_777);
  effect.stretches = { opening: CHOKES, hold: { kind: 'none' }, closing: 1.35, preRoll: 0 };
  effect.palette = collectionOf([
    ['silt', namedColour('Silt', '#8a7350')],
    ['mud', namedColour('Mud', '#2c231a')],
    ['bog', namedColour('Bog light', '#a8d86a')],
  ]);
  effect.stage.things = collectionOf([
    [
      'bogling',
      { ...newThing('Bogling', kit['bogling']!), clip: 'pound', at: [1.5, 0, -0.15] as Vector, facing: -60 },
    ],
  ]);
  effect.surfaces = collectionOf([
    ['ground', { ...newSurface('ground', { place: inWorld() }), layers: ['clods'] }],
    // Roots slide down the funnel as it is seen, deep or choked.
    ['walls', sliding({ ...newSurface('layer', { layer: 'funnel' }), layers: ['roots'] })],
  ]);
  const open = { over: OPEN, reads: 'effectTime' as const };

  // What is seen of the hole is seen through its mouth: the ground before it is not there.
  const mouth = layer(
    'Mouth',
    0x51ca01,
    { kind: 'point', place: MIDDLE },
    {
      'births.standing': 1,
      'life.size': { base: WIDE, ...open },
      'life.opacity': {
        base: 100,
        over: [
          [0, 0],
          [0.06, 1],
          [0.8, 1],
          [0.82, 0],
        ],
        reads: 'effectTime',
      },
      'appearance.facing': 'ground',
      'appearance.blend': 'normal',
    },
    step('drawn', { shape: 'disc', softness: 12 }),
  );
  colour(mouth, [0, named('mud')]);

  const funnel = meshes(
    layer(
      'Funnel',
      0x51ca02,
      { kind: 'point', place: MIDDLE },
      {
        'births.standing': 1,
        'life.size': { base: WIDE * 1.02, ...open },
        'life.height': DEEP,
        'life.angle': 0,
        'life.turning': -26,
        'appearance.facing': 'ground',
        'appearance.blend': 'normal',
        'appearance.lit': 'card',
        'appearance.litShare': 55,
        'appearance.depth': 'never hidden',
      },
      step('scroll', { along: -0.35, repeatAcross: 5, repeatAlong: 2.2 }),
      step('drawn', { shape: 'clouds', grains: 3, softness: 70, onto: 'colour', amount: 75, varied: false }),
      step('scroll', { along: 0.35 }),
      gradient('along', [0, '#b59a6c'], [0.3, '#7a6342'], [0.75, '#2a2016'], [1, '#050403']),
    ),
    kit,
    ['funnel'],
    { roughness: 85, otherShape: { base: 100, over: CHOKING, reads: 'effectTime' } },
  );
  funnel.inside = 'mouth';
  colour(funnel, [0, hex('#ffffff')]);

  const spiral = force('vortex', MIDDLE, { strength: 3.4, pull: 2.8, axis: [0, -1, 0] as Vector });
  const silt = layer(
    'Silt',
    0x51ca03,
    { kind: 'ring', place: MIDDLE },
    {
      'source.radius': { base: WIDE * 0.47, ...open },
      'source.thickness': 0.14,
      'births.rate': {
        base: 260,
        over: [
          [0, 0],
          [0.12, 0.4],
          [0.3, 1],
          [0.64, 1],
          [0.68, 0],
        ],
        reads: 'effectTime',
      },
      'births.life': [0.8, 1.25],
      'motion.launch': 'tangent',
      'motion.speed': [-1.6, -0.9],
      'life.size': {
        base: [0.03, 0.075],
        over: [
          [0, 0.6],
          [0.3, 1],
          [1, 0.5],
        ],
      },
      'life.opacity': {
        base: 100,
        over: inAndOut(0.12, 0.8),
      },
      'appearance.blend': 'normal',
      'appearance.lit': 'ball',
      'appearance.depth': 'never hidden',
      'appearance.facing': 'motion',
      'appearance.lengthening': 0.05,
    },
    step('drawn', { shape: 'soft dot', softness: 20 }),
  );
  silt.inside = 'mouth';
  colour(silt, [0, hex('#b59a6c')], [0.6, named('silt')], [1, named('mud')]);
  forces(silt, spiral, force('gravity', null, { strength: 1.9 }), force('drag', null, { strength: 0.5 }));

  const runs = layer(
    'Runs of mud',
    0x51ca04,
    { kind: 'ring', place: MIDDLE },
    {
      'source.radius': { base: WIDE * 0.46, ...open },
      'births.rate': {
        base: 26,
        over: [
          [0, 0],
          [0.2, 1],
          [0.64, 1],
          [0.68, 0],
        ],
        reads: 'effectTime',
      },
      'births.life': [0.9, 1.3],
      'births.cap': 200,
      'motion.launch': 'tangent',
      'motion.speed': [-1.7, -1],
      'life.size': {
        base: [0.05, 0.11],
        over: [
          [0, 0.4],
          [0.3, 1],
          [1, 0.4],
        ],
      },
      'life.opacity': {
        base: 82,
        over: [
          [0, 0],
          [0.2, 1],
          [0.8, 0.9],
          [1, 0],
        ],
      },
      'appearance.blend': 'normal',
      'appearance.depth': 'never hidden',
    },
    gradient('across', [0, '#4a3b28'], [0.5, '#d9bd8a'], [1, '#4a3b28']),
  );
  runs.drawn = newRibbon('trail');
  if (runs.drawn.kind === 'trail') runs.drawn.settings.lasts.base = { kind: 'fixed', value: 0.5 };
  runs.inside = 'mouth';
  colour(runs, [0, named('silt')], [1, named('mud')]);
  forces(runs, spiral, force('gravity', null, { strength: 1.7 }), force('drag', null, { strength: 0.5 }));

  const roots = meshes(
    layer(
      'Roots',
      0x51ca05,
      { kind: 'ring', place: MIDDLE },
      {
        'source.radius': WIDE * 0.46,
        'births.rate': {
          base: 8,
          over: [
            [0, 0],
            [0.22, 1],
            [0.62, 1],
            [0.66, 0],
          ],
          reads: 'effectTime',
        },
        'births.life': [1, 1.4],
        'motion.launch': 'tangent',
        'motion.speed': [-1.5, -0.9],
        'life.size': {
          base: [0.28, 0.5],
          over: [
            [0, 0.2],
            [0.2, 1],
            [0.8, 0.9],
            [1, 0.3],
          ],
        },
        'life.opacity': {
          base: 100,
          over: inAndOut(0.1, 0.85),
        },
        'life.turning': [-200, 200],
        'appearance.facing': 'own frame',
        'appearance.blend': 'normal',
        'appearance.lit': 'card',
        'appearance.depth': 'never hidden',
      },
    ),
    kit,
    ['root'],
    { roughness: 80 },
  );
  roots.inside = 'mouth';
  roots.settings['life.tilt'].base = { kind: 'spread', low: [-180, -180, -180], high: [180, 180, 180] };
  roots.settings['life.axle'].base = { kind: 'spread', low: [-1, -1, -1], high: [1, 1, 1] };
  colour(roots, [0, hex('#6a4f33')]);
  forces(roots, spiral, force('gravity', null, { strength: 1.6 }), force('drag', null, { strength: 0.6 }));

  const lip = layer(
    'Broken lip',
    0x51ca06,
    { kind: 'point', place: MIDDLE },
    {
      'births.standing': 2,
      'life.size': { base: [WIDE * 1.12, WIDE * 1.22], ...open },
      'life.opacity': {
        base: 90,
        over: [
          [0, 0],
          [0.05, 1],
          [0.8, 1],
          [1, 0.3],
        ],
        reads: 'effectTime',
      },
      'life.angle': [-180, 180],
      'appearance.facing': 'ground',
      'appearance.blend': 'normal',
    },
    step('warp', { strength: 12, grains: 6 }),
    step('drawn', { shape: 'ring', width: 20, softness: 55 }),
    step('drawn', { shape: 'clouds', grains: 9, softness: 50, amount: 70 }),
  );
  colour(lip, [0, hex('#3d3122')]);

  const shade = layer(
    'Sagging ground',
    0x51ca07,
    { kind: 'point', place: MIDDLE },
    {
      'births.standing': 1,
      'life.size': {
        base: WIDE * 1.75,
        over: [
          [0, 0.3],
          [0.3, 1],
          [0.7, 1],
          [1, 0.8],
        ],
        reads: 'effectTime',
      },
      'life.opacity': {
        base: 85,
        over: inAndOut(0.15, 0.75),
        reads: 'effectTime',
      },
      'appearance.facing': 'ground',
      'appearance.blend': 'multiply',
    },
    step('warp', { strength: 14, grains: 4 }),
    step('drawn', { shape: 'soft dot', softness: 20 }),
  );
  colour(shade, [0, hex('#2a2418')]);

  const glow = layer(
    'Bog light in the throat',
    0x51ca08,
    { kind: 'point', place: inWorld([-0.2, -0.6, -0.35]) },
    {
      'births.standing': 1,
      'life.size': {
        base: 1.5,
        over: [
          [0, 0],
          [0.25, 0.7],
          [0.64, 1.3],
          [0.72, 1.7],
          [0.8, 0],
        ],
        reads: 'effectTime',
      },
      'life.opacity': {
        base: 62,
        over: [
          [0, 0],
          [0.25, 1],
          [0.74, 1],
          [0.8, 0],
        ],
        reads: 'effectTime',
      },
      'life.intensity': 1.3,
      'appearance.depth': 'never hidden',
    },
    step('drawn', { shape: 'soft dot', softness: 50 }),
  );
  glow.inside = 'mouth';
  colour(glow, [0, named('bog')]);

  const thrown = (made: ReturnType<typeof layer>, count: number, times = 3) => {
    made.bursts = collectionOf([['thrown', { ...burst('closing', 0.02, count), times, every: 0.05 }]]);
    return made;
  };
  const column = thrown(
    layer(
      'Column',
      0x51ca09,
      { kind: 'disc', place: MIDDLE },
      {
        'source.radius': 0.3,
        'source.region': 'volume',
        'births.life': [0.6, 1.1],
        'motion.launch': 'axis',
        'motion.speed': [3, 6],
        'motion.opening': 13,
        'life.size': {
          base: [0.3, 0.6],
          over: [
            [0, 0.4],
            [1, 1.5],
          ],
        },
        'life.opacity': {
          base: 78,
          over: [
            [0, 0],
            [0.08, 1],
            [0.6, 0.7],
            [1, 0],
          ],
        },
        'life.angle': [-180, 180],
        'appearance.blend': 'normal',
        'appearance.lit': 'ball',
        'appearance.order': 'nearest',
      },
      step('drawn', { shape: 'soft dot', softness: 20 }),
      step('drawn', { shape: 'clouds', grains: 2.6, softness: 60, amount: 85 }),
      step('soft', { distance: 0.2 }),
    ),
    34,
    4,
  );
  colour(column, [0, named('mud')], [0.4, named('silt')], [1, hex('#6d6250')]);
  forces(column, force('gravity', null, { strength: 8 }), force('drag', null, { strength: 0.9 }));

  const clods = thrown(
    meshes(
      layer(
        'Clods and roots',
        0x51ca0a,
        { kind: 'disc', place: MIDDLE },
        {
          'source.radius': 0.4,
          'source.region': 'volume',
          'births.life': [1.1, 1.6],
          'motion.launch': 'axis',
          'motion.speed': [3.4, 6],
          'motion.opening': 28,
          'life.size': {
            base: [0.1, 0.36],
            over: inAndOut(0.08, 0.85),
          },
          'life.turning': [-500, 500],
          'appearance.facing': 'own frame',
          'appearance.blend': 'solid',
          'appearance.lit': 'card',
        },
      ),
      kit,
      ['root', 'puff'],
      { roughness: 90, shadow: true },
    ),
    12,
  );
  clods.settings['life.tilt'].base = { kind: 'spread', low: [-180, -180, -180], high: [180, 180, 180] };
  clods.settings['life.axle'].base = { kind: 'spread', low: [-1, -1, -1], high: [1, 1, 1] };
  colour(clods, [0, hex('#4a3826')]);
  forces(clods, force('gravity', null, { strength: 9.81 }));

  const sprayed = thrown(
    layer(
      'Spray',
      0x51ca0b,
      { kind: 'disc', place: MIDDLE },
      {
        'source.radius': 0.4,
        'source.region': 'volume',
        'births.life': [0.6, 1.2],
        'motion.launch': 'axis',
        'motion.speed': [3, 7],
        'motion.opening': 32,
        'life.size': {
          base: [0.015, 0.04],
          over: [
            [0, 1],
            [1, 0.5],
          ],
        },
        'life.opacity': {
          base: 100,
          over: inAndOut(0.04, 0.7),
        },
        'life.intensity': [0.9, 2],
        'appearance.facing': 'motion',
        'appearance.lengthening': 0.035,
        'appearance.blend': 'mixed',
        'appearance.covers': 75,
      },
      step('drawn', { shape: 'soft dot', softness: 30 }),
    ),
    130,
    4,
  );
  colour(sprayed, [0, named('bog')], [0.25, named('silt')], [1, named('mud')]);
  forces(sprayed, force('gravity', null, { strength: 9.81 }), force('drag', null, { strength: 0.4 }));

  const ring = thrown(
    layer(
      'Ring of the burst',
      0x51ca0c,
      { kind: 'point', place: MIDDLE },
      {
        'births.life': 0.6,
        'life.size': {
          base: 5,
          over: [
            [0, 0.1],
            [0.4, 0.7],
            [1, 1],
          ],
        },
        'life.opacity': {
          base: 72,
          over: inAndOut(0.1),
        },
        'appearance.facing': 'ground',
        'appearance.blend': 'mixed',
        'appearance.covers': 70,
      },
      step('drawn', { shape: 'ring', width: 14, softness: 80 }),
      step('drawn', { shape: 'clouds', grains: 8, softness: 60, amount: 70 }),
    ),
    1,
    1,
  );
  colour(ring, [0, named('silt')]);
  const light = drawn(
    layer(
      'Bog light',
      0x51ca0d,
      { kind: 'point', place: inWorld([-0.2, 0.35, -0.35]) },
      {
        'births.standing': 1,
        'life.intensity': {
          base: 3,
          over: [
            [0, 0],
            [0.25, 0.6],
            [0.66, 0.8],
            [0.72, 1.6],
            [0.8, 1],
            [1, 0],
          ],
          reads: 'effectTime',
        },
      },
    ),
    'light',
    { reach: 3 },
  );
  colour(light, [0, named('bog')]);
  layers(effect, {
    sprayed,
    column,
    clods,
    ring,
    roots,
    runs,
    silt,
    glow,
    funnel,
    mouth,
    lip,
    shade,
    shimmer: shimmer('Bog light on the water', 0x51ca10, MIDDLE, 5.4, named('bog'), 75),
    sodden: darkWater('Sodden ground', 0x51ca0f, MIDDLE, 6, {}, '#2a2219'),
    light,
  });
  return effect;
}
