import {
  atBone,
  atThing,
  burst,
  collectionOf,
  newEffect,
  newRibbon,
  newThing,
  type Effect,
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
  step,
  type KitAssets,
} from './build.ts';

const SEDGE = 'sedge';
/** When the blades leave, seconds into the sweep, and how each is turned. */
const BLADES: readonly { at: number; turn: Vector; size: number }[] = [
  { at: 0.34, turn: [8, -20, 14], size: 2.1 },
  { at: 0.42, turn: [-4, -4, 2], size: 2.35 },
  { at: 0.5, turn: [-16, 14, -9], size: 2.15 },
];
const AT_CHEST = (turn: Vector = [0, 0, 0]) => atThing(SEDGE, [0, 1.12, 0.05], turn);

/** Reed Cleave: Sedge's sweep splits into three thin blades, with a dark wake under them and seeds from the tips. */
export function reedCleave(kit: KitAssets): Effect {
  const effect = newEffect('Reed Cleave', 30_211);
  effect.stretches = { opening: 1.5, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
  effect.palette = collectionOf([
    ['reed', namedColour('Reed light', '#cfe86a')],
    ['pale', namedColour('Pale edge', '#f6ffd8')],
    ['deep', namedColour('Deep water', '#1d4a3a')],
  ]);
  effect.stage.things = collectionOf([[SEDGE, { ...newThing('Sedge', kit['sedge']!), clip: 'sweep' }]]);

  const once = (made: ReturnType<typeof layer>, at: number, count = 1) => {
    made.bursts = collectionOf([['once', burst('opening', at, count)]]);
    return made;
  };
  const blades = BLADES.flatMap(({ at, turn, size }, n) => {
    const sweep = {
      base: size,
      over: [
        [0, 0.72],
        [0.35, 1],
        [1, 1.1],
      ] as const,
    };
    const edge = once(
      meshes(
        layer(
          `Blade ${n + 1}`,
          0x2eed01 + n,
          { kind: 'point', place: AT_CHEST() },
          {
            'births.life': 0.42,
            'life.size': sweep,
            'life.tilt': turn,
            'life.axle': [0, 1, 0],
            'life.turning': {
              base: -260,
              over: [
                [0, 1],
                [0.4, 0.25],
                [1, 0],
              ],
            },
            'life.angle': 60,
            'life.opacity': {
              base: 100,
              over: [
                [0, 0],
                [0.08, 1],
                [0.45, 0.9],
                [1, 0],
              ],
            },
            'life.intensity': {
              base: 2.4,
              over: [
                [0, 1.4],
                [0.3, 1],
                [1, 0.4],
              ],
            },
            'appearance.facing': 'own frame',
            'appearance.blend': 'mixed',
            'appearance.covers': 45,
          },
          gradient('across', [0, '#ffffff'], [0.12, '#e9ff9a'], [0.4, '#7fb23a'], [1, '#0e2a1a']),
          step('scroll', { repeatAcross: 1.2, repeatAlong: 0.8 }),
          step('drawn', { shape: 'clouds', grains: 7, softness: 60, amount: 55, varied: true }),
          step('dissolve', {
            amount: {
              base: 100,
              over: [
                [0, 0],
                [0.35, 0.05],
                [1, 1],
              ],
            },
            grains: 9,
            softness: 14,
            edge: 16,
            glow: 3,
            colour: named('pale'),
          }),
        ),
        kit,
        ['crescent'],
      ),
      at,
    );
    colour(edge, [0, named('pale')], [1, named('reed')]);
    const wake = once(
      meshes(
        layer(
          `Wake ${n + 1}`,
          0x2eed11 + n,
          { kind: 'point', place: AT_CHEST() },
          {
            'births.life': 0.7,
            'life.size': {
              base: size * 1.03,
              over: [
                [0, 0.7],
                [0.3, 1],
                [1, 1.04],
              ],
            },
            'life.tilt': turn,
            'life.axle': [0, 1, 0],
            'life.turning': {
              base: -240,
              over: [
                [0, 1],
                [0.4, 0.2],
                [1, 0],
              ],
            },
            'life.angle': 66,
            'life.opacity': {
              base: 62,
              over: inAndOut(0.15),
            },
            'appearance.facing': 'own frame',
            'appearance.blend': 'multiply',
          },
          gradient('across', [0, '#9fb8a4'], [0.5, '#24382f'], [1, '#ffffff']),
          step('dissolve', {
            amount: {
              base: 100,
              over: [
                [0, 0.1],
                [1, 1],
              ],
            },
            grains: 5,
            softness: 40,
            edge: 0,
          }),
        ),
        kit,
        ['crescent'],
      ),
      at + 0.02,
    );
    colour(wake, [0, hex('#ffffff')]);
    return [
      [`blade${n + 1}`, edge],
      [`wake${n + 1}`, wake],
    ] as const;
  });

  const trail = layer(
    'Sweep of the blade',
    0x2eed21,
    { kind: 'point', place: AT_CHEST() },
    {
      'births.life': 0.62,
      'life.opacity': {
        base: 85,
        over: [
          [0, 0],
          [0.2, 1],
          [0.8, 0.7],
          [1, 0],
        ],
      },
      'life.intensity': 1.6,
      'appearance.blend': 'mixed',
      'appearance.covers': 30,
    },
    gradient('across', [0, '#12301c'], [0.7, '#a8d24a'], [1, '#ffffff']),
    step('drawn', { shape: 'clouds', grains: 3, softness: 80, amount: 60 }),
  );
  trail.drawn = newRibbon('blade', atBone(SEDGE, 'blade', [0, 0, 0.16]), atBone(SEDGE, 'blade', [0, 0, 0.9]));
  once(trail, 0.22);
  colour(trail, [0, named('reed')]);

  const seeds = layer(
    'Seeds',
    0x2eed31,
    { kind: 'ring', place: AT_CHEST([0, 0, 0]) },
    {
      'source.radius': 0.98,
      'source.arc': 230,
      'births.life': [0.45, 1.05],
      'motion.launch': 'tangent',
      'motion.speed': [-4.2, -1.6],
      'motion.opening': 24,
      'life.size': {
        base: [0.014, 0.034],
        over: [
          [0, 1],
          [1, 0.4],
        ],
      },
      'life.opacity': {
        base: 100,
        over: [
          [0, 0],
          [0.08, 1],
          [0.6, 0.9],
          [1, 0],
        ],
      },
      'life.intensity': [1.4, 3],
      'appearance.facing': 'motion',
      'appearance.lengthening': 0.05,
      'appearance.blend': 'mixed',
      'appearance.covers': 35,
    },
    step('drawn', { shape: 'soft dot', softness: 40 }),
  );
  seeds.bursts = collectionOf([['thrown', { ...burst('opening', 0.35, 34), times: 4, every: 0.05 }]]);
  colour(seeds, [0, named('pale')], [0.5, named('reed')], [1, hex('#5a7a26')]);
  forces(
    seeds,
    force('drag', null, { strength: 3.2 }),
    force('gravity', null, { strength: 1.6 }),
    force('curl', null, { strength: 2.2, size: 0.4, change: 1 }),
  );

  const scrape = layer(
    'Dust of the sweep',
    0x2eed41,
    { kind: 'ring', place: atThing(SEDGE, [0, 0.03, 0.1]) },
    {
      'source.radius': 0.9,
      'source.thickness': 0.2,
      'births.life': [0.6, 1.1],
      'motion.launch': 'outward',
      'motion.speed': [0.3, 1.1],
      'life.size': {
        base: [0.3, 0.6],
        over: [
          [0, 0.5],
          [1, 1.25],
        ],
      },
      'life.opacity': {
        base: 26,
        over: inAndOut(0.15),
      },
      'life.angle': [-180, 180],
      'appearance.blend': 'normal',
      'appearance.lit': 'ball',
    },
    step('drawn', { shape: 'soft dot', softness: 30 }),
    step('drawn', { shape: 'clouds', grains: 3, softness: 70, amount: 80 }),
    step('soft', { distance: 0.2 }),
  );
  once(scrape, 0.38, 26);
  colour(scrape, [0, hex('#8b8f78')]);
  forces(scrape, force('drag', null, { strength: 2.4 }), force('gravity', null, { strength: -0.2 }));

  const light = once(
    drawn(
      layer(
        'Light of the sweep',
        0x2eed51,
        { kind: 'point', place: atThing(SEDGE, [0, 0.7, 0.8]) },
        {
          'births.life': 0.55,
          'life.intensity': 4,
          'life.opacity': {
            base: 100,
            over: inAndOut(0.2),
          },
        },
      ),
      'light',
      { reach: 3.4, surfaces: 1 },
    ),
    0.34,
  );
  colour(light, [0, named('reed')]);
  layers(effect, {
    ...Object.fromEntries([...blades].filter((_, n) => n % 2 === 0)),
    seeds,
    trail,
    ...Object.fromEntries([...blades].filter((_, n) => n % 2 === 1)),
    scrape,
    water: darkWater('Dark water', 0x2eed61, atThing(SEDGE, [0, 0, 0.2]), 4.8, {}, '#1b2b24'),
    light,
  });
  return effect;
}
