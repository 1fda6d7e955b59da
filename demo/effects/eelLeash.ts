import {
  inWorld,
  atBone,
  burst,
  collectionOf,
  newEffect,
  newRibbon,
  newThing,
  type Effect,
  type Vector,
  namedColour,
  settingsByName,
  type NumberSetting,
  setWidthAlong,
} from '@jinx/core/document';
import {
  colour,
  darkWater,
  drawn,
  force,
  forces,
  gradient,
  inAndOut,
  layer,
  layers,
  named,
  shimmer,
  standingLight,
  step,
  type KitAssets,
} from './build.ts';

const [SEDGE, BOGLING] = ['sedge', 'bogling'];
const HAND = atBone(SEDGE, 'hand.left', [0, -0.08, 0.04]);
const LAMP = atBone(BOGLING, 'lamp', [0, -0.1, 0.06]);

/** Eel Leash: a living cord of light from Sedge's hand to the lamp in the Bogling's chest. */
export function eelLeash(kit: KitAssets): Effect {
  const effect = newEffect('Eel Leash', 61_441);
  effect.stretches = { opening: 0.5, hold: { kind: 'continuing', seconds: 3 }, closing: 0.8, preRoll: 0 };
  effect.palette = collectionOf([
    ['eel', namedColour('Eel', '#6fe3c4')],
    ['spark', namedColour('Spark', '#e8fff4')],
    ['deep', namedColour('Deep', '#1d6f8a')],
  ]);
  effect.stage.things = collectionOf([
    [SEDGE, { ...newThing('Sedge', kit['sedge']!), clip: 'cast', at: [-0.55, 0, 0] as Vector, facing: 80 }],
    [BOGLING, { ...newThing('Bogling', kit['bogling']!), clip: 'struck', at: [1.0, 0, 0] as Vector, facing: -80 }],
  ]);
  const beam = (
    name: string,
    salt: number,
    values: Parameters<typeof layer>[3],
    shape: Record<string, number>,
    ...steps: Parameters<typeof layer>[4][]
  ) => {
    const made = layer(name, salt, { kind: 'point', place: HAND }, { 'births.standing': 1, ...values }, ...steps);
    made.drawn = newRibbon('beam', HAND, LAMP);
    const settings = settingsByName<NumberSetting>(made.drawn);
    for (const [setting, value] of Object.entries(shape)) settings[setting]!.base = { kind: 'fixed', value };
    return made;
  };
  const lasting = {
    base: 100,
    over: inAndOut(0.06, 0.82),
    reads: 'effectTime' as const,
  };

  const cord = beam(
    'Cord',
    0xee1a01,
    {
      'life.size': {
        base: 0.13,
        over: [
          [0, 0.4],
          [0.1, 1],
          [0.8, 1],
          [1, 0.2],
        ],
        reads: 'effectTime',
      },
      'life.opacity': lasting,
      'life.intensity': 1.5,
      'appearance.blend': 'mixed',
      'appearance.covers': 60,
      'appearance.lit': 'card',
      'appearance.litShare': 30,
    },
    { sag: 0.34, jag: 0.05, jagSize: 0.35, strikes: 5, speed: 9, tile: 0.5 },
    gradient('across', [0, '#0e3a4a'], [0.35, '#58d8ba'], [0.5, '#f0fff8'], [0.65, '#58d8ba'], [1, '#0e3a4a']),
    step('scroll', { along: 1.6 }),
    step('drawn', { shape: 'cells', grains: 5, softness: 60, amount: 60, varied: false, onto: 'colour' }),
  );
  if (cord.drawn.kind === 'beam') {
    cord.drawn.settings.form.base = { kind: 'fixed', value: 'tube' };
    cord.drawn.settings.laid.base = { kind: 'fixed', value: 'by the metre' };
    setWidthAlong(cord.drawn, 60, 90, 130);
  }
  colour(cord, [0, named('eel')]);

  const glow = beam(
    'Glow',
    0xee1a02,
    {
      'life.size': 0.5,
      'life.opacity': { ...lasting, base: 30 },
      'life.intensity': 1,
    },
    { sag: 0.34, jag: 0.05, jagSize: 0.35, strikes: 5, speed: 9 },
    step('drawn', { shape: 'soft dot', softness: 30, amount: 0 }),
    gradient('across', [0, '#000000'], [0.5, '#6fe3c4'], [1, '#000000']),
  );
  if (glow.drawn.kind === 'beam') setWidthAlong(glow.drawn, 60, 90);
  colour(glow, [0, named('eel')]);

  const lightning = beam(
    'Jagged strands',
    0xee1a03,
    {
      'births.standing': 3,
      'life.size': [0.02, 0.045],
      'life.opacity': { ...lasting, base: 90 },
      'life.intensity': [1.8, 3],
    },
    { sag: 0.3, jag: 0.2, jagSize: 0.16, strikes: 14, branches: 3, branchLength: 0.5, speed: 9 },
    gradient('across', [0, '#000000'], [0.5, '#ffffff'], [1, '#000000']),
  );
  colour(lightning, [0, named('spark')]);

  const dying = beam(
    'Branches as it dies',
    0xee1a04,
    {
      'births.standing': 0,
      'births.life': 0.6,
      'life.size': [0.03, 0.06],
      'life.opacity': {
        base: 100,
        over: [
          [0, 0],
          [0.1, 1],
          [0.6, 0.8],
          [1, 0],
        ],
      },
      'life.intensity': 3,
    },
    { sag: 0.5, jag: 0.36, jagSize: 0.2, strikes: 20, branches: 9, branchLength: 0.9 },
    gradient('across', [0, '#000000'], [0.5, '#ffffff'], [1, '#000000']),
  );
  dying.bursts = collectionOf([['dies', { ...burst('closing', 0.02, 2), times: 3, every: 0.12 }]]);
  colour(dying, [0, named('spark')], [1, named('eel')]);

  const bite = layer(
    'Bite',
    0xee1a05,
    { kind: 'point', place: LAMP },
    {
      'births.rate': 60,
      'births.life': [0.3, 0.7],
      'motion.launch': 'any',
      'motion.speed': [0.6, 2],
      'life.size': {
        base: [0.012, 0.03],
        over: [
          [0, 1],
          [1, 0.3],
        ],
      },
      'life.opacity': {
        base: 100,
        over: [
          [0, 0],
          [0.1, 1],
          [0.6, 0.8],
          [1, 0],
        ],
      },
      'life.intensity': [2, 4],
      'appearance.facing': 'motion',
      'appearance.lengthening': 0.04,
    },
    step('drawn', { shape: 'soft dot', softness: 40 }),
  );
  colour(bite, [0, named('spark')], [1, named('deep')]);
  forces(
    bite,
    force('gravity', null, { strength: 3 }),
    force('drag', null, { strength: 2 }),
    force('curl', null, { strength: 4, size: 0.3, change: 2 }),
  );

  const ends = (name: string, salt: number, place: typeof HAND, size: number) =>
    colour(
      layer(
        name,
        salt,
        { kind: 'point', place },
        {
          'births.standing': 1,
          'motion.ride': 100,
          'life.size': {
            base: size,
            over: [
              [0, 0.4],
              [0.1, 1],
              [0.3, 0.85],
              [0.5, 1.1],
              [0.7, 0.9],
              [0.9, 1],
              [1, 0],
            ],
            reads: 'effectTime',
          },
          'life.opacity': lasting,
          'life.intensity': 1.8,
          'life.turning': 40,
          'appearance.nudge': 0.3,
        },
        step('drawn', { shape: 'flare', width: 9, softness: 50 }),
      ),
      [0, named('eel')],
    );
  const hold = ends('Hold', 0xee1a06, HAND, 0.55);
  const seize = ends('Seize', 0xee1a07, LAMP, 0.85);

  const drips = layer(
    'Drips',
    0xee1a08,
    { kind: 'line', place: { ...HAND, offset: [0, -0.1, 0.6], turn: [90, 0, 0] } },
    {
      'source.length': 1.2,
      'births.rate': 16,
      'births.life': [0.6, 0.9],
      'life.size': {
        base: [0.02, 0.04],
        over: [
          [0, 0.2],
          [0.3, 1],
          [1, 0.8],
        ],
      },
      'life.opacity': {
        base: 90,
        over: inAndOut(0.2, 0.8),
      },
      'life.intensity': 1.4,
      'appearance.facing': 'motion',
      'appearance.lengthening': 0.05,
    },
    step('drawn', { shape: 'soft dot', softness: 30 }),
  );
  colour(drips, [0, named('eel')], [1, named('deep')]);
  forces(drips, force('gravity', null, { strength: 4 }));

  const skin = drawn(
    layer(
      'Seized skin',
      0xee1a09,
      { kind: 'point', place: LAMP },
      {
        'births.standing': 1,
        'life.opacity': { ...lasting, base: 55 },
      },
      step('rim', { does: 'shows the rim only', sharpness: 1.8, intensity: 1.4 }),
      step('scroll', { along: 0.5 }),
      step('drawn', { shape: 'clouds', grains: 6, softness: 50 }),
    ),
    'body',
    {},
    { thing: BOGLING },
  );
  colour(skin, [0, named('eel')]);

  const lights = (name: string, salt: number, place: typeof HAND) =>
    standingLight(
      name,
      salt,
      place,
      2.4,
      [
        [0, 0],
        [0.08, 1],
        [0.3, 0.7],
        [0.5, 1.1],
        [0.7, 0.75],
        [0.85, 1],
        [1, 0],
      ],
      named('eel'),
      { reach: 2.6 },
    );
  layers(effect, {
    dying,
    lightning,
    bite,
    hold,
    seize,
    cord,
    glow,
    drips,
    skin,
    shimmer: shimmer('Eel light on the water', 0xee1a0d, inWorld([0.2, 0, 0]), 5, named('eel'), 80),
    water: darkWater('Eel water', 0xee1a0c, inWorld([0.2, 0, 0]), 5.8, {}, '#12302c'),
    light1: lights('Light in the hand', 0xee1a0a, HAND),
    light2: lights('Light in the chest', 0xee1a0b, LAMP),
  });
  return effect;
}
