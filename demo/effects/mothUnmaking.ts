import {
  atBone,
  atThing,
  burst,
  collectionOf,
  curveShaper,
  newEffect,
  newFront,
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
  hex,
  inAndOut,
  layer,
  layers,
  named,
  picture,
  standingLight,
  step,
  type KitAssets,
  type Points,
} from './build.ts';

const [BOGLING, TALLOW] = ['bogling', 'tallow'];
const CHEST = atBone(BOGLING, 'lamp', [0, -0.1, 0]);
const LIGHT = atBone(TALLOW, 'lamp', [0, -0.2, 0.1]);
const SECONDS = 3.6;

/** Moth Unmaking: the Bogling comes apart from the lamp in its chest into moths, which circle and go to Tallow's light. */
export function mothUnmaking(kit: KitAssets): Effect {
  const effect = newEffect('Moth Unmaking', 88_007);
  effect.stretches = { opening: SECONDS, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
  effect.palette = collectionOf([
    ['ember', namedColour('Ember', '#ff9a3c')],
    ['moth', namedColour('Moth', '#e8dcc2')],
    ['lamp', namedColour('Lamp', '#ffd27a')],
  ]);
  effect.stage.things = collectionOf([
    [BOGLING, { ...newThing('Bogling', kit['bogling']!), clip: 'struck', at: [0.35, 0, 0] as Vector }],
    [TALLOW, { ...newThing('Tallow', kit['tallow']!), clip: 'idle', at: [-1.5, 0, -0.5] as Vector, facing: 55 }],
  ]);
  const front = newFront('Unmaking', 'sphere', CHEST);
  front.settings.border.base = { kind: 'fixed', value: 1.75 };
  front.settings.border.shapers = collectionOf([
    [
      'grow',
      {
        ...curveShaper([
          [0, 0],
          [0.06, 0],
          [0.3, 0.22],
          [0.72, 1],
          [1, 1],
        ]),
        reads: { kind: 'effectTime' } as const,
      },
    ],
  ]);
  front.settings.noise.base = { kind: 'fixed', value: 0.14 };
  front.settings.noiseSize.base = { kind: 'fixed', value: 0.16 };
  effect.fronts = collectionOf([['front', front]]);

  const body = drawn(
    layer(
      'Body that goes',
      0x307401,
      { kind: 'point', place: CHEST },
      {
        'births.standing': 1,
        'appearance.blend': 'solid',
        'appearance.lit': 'card',
      },
    ),
    'body',
    { stands: 'in its place', offset: 0, edge: 0.09, glow: 5 },
    { thing: BOGLING, front: 'front' },
  );
  body.look = { kind: 'own', steps: collectionOf([]) };
  colour(body, [0, hex('#ffffff')]);

  const freed = (
    name: string,
    salt: number,
    count: number,
    values: Parameters<typeof layer>[3],
    ...steps: Parameters<typeof layer>[4][]
  ) => {
    const made = layer(
      name,
      salt,
      { kind: 'mesh', thing: BOGLING, bones: [] },
      {
        'source.order': 'even',
        'release.heldSize': 0,
        'release.heldOpacity': 0,
        'motion.launch': 'normal',
        ...values,
      },
      ...steps,
    );
    made.bursts = collectionOf([['all', burst('opening', 0, count)]]);
    made.front = 'front';
    return made;
  };
  const moths = freed(
    'Moths',
    0x307402,
    460,
    {
      'births.life': [1.5, 2.5],
      'births.cap': 2000,
      'motion.speed': [0.3, 0.9],
      'motion.opening': 40,
      'life.size': {
        base: [0.055, 0.12],
        over: [
          [0, 0.3],
          [0.12, 1],
          [0.85, 0.9],
          [1, 0.2],
        ],
      },
      'life.opacity': {
        base: 100,
        over: inAndOut(0.05, 0.85),
      },
      'life.angle': [-50, 50],
      'life.intensity': {
        base: [0.7, 1.1],
        over: [
          [0, 2.4],
          [0.12, 1],
          [0.7, 1],
          [1, 2.2],
        ],
      },
      'life.aligned': true,
      'appearance.blend': 'mixed',
      'appearance.covers': 80,
      'appearance.lit': 'card',
      'appearance.litShare': 45,
      'appearance.order': 'nearest',
    },
    picture(kit['moth']!, 'moth', { columns: 4, rows: 2, plays: 'by the clock', rate: [16, 26], first: [0, 100] }),
  );
  colour(moths, [0, named('ember')], [0.12, named('moth')], [0.75, named('moth')], [1, named('lamp')]);
  forces(
    moths,
    force('vortex', CHEST, {
      strength: {
        base: [2, 4],
        over: [
          [0, 1],
          [0.5, 1],
          [0.8, 0],
        ],
      },
      reach: 2.6,
      lift: 0.7,
    }),
    force('curl', null, {
      strength: {
        base: 4.2,
        over: [
          [0, 1],
          [0.6, 0.7],
          [1, 0.2],
        ],
      },
      size: 0.5,
      change: 0.8,
    }),
    force('attraction', LIGHT, {
      strength: {
        base: [9, 14],
        over: [
          [0, 0],
          [0.32, 0.05],
          [0.6, 0.6],
          [1, 1],
        ],
      },
    }),
    force('drag', null, { strength: 2.1 }),
    force('gravity', null, { strength: -0.5 }),
  );

  const peat = freed(
    'Crumbs of peat',
    0x307403,
    700,
    {
      'births.life': [0.4, 0.9],
      'births.cap': 2000,
      'motion.speed': [0.1, 0.7],
      'motion.opening': 60,
      'life.size': {
        base: [0.012, 0.034],
        over: [
          [0, 1],
          [1, 0.4],
        ],
      },
      'life.opacity': {
        base: 100,
        over: inAndOut(0.1, 0.7),
      },
      'appearance.blend': 'normal',
      'appearance.lit': 'ball',
    },
    step('drawn', { shape: 'disc', softness: 40 }),
  );
  colour(peat, [0, hex('#3a2a1c')]);
  forces(peat, force('gravity', null, { strength: 5 }), force('drag', null, { strength: 0.8 }));

  const sparks = freed(
    'Sparks of the edge',
    0x307404,
    420,
    {
      'births.life': [0.35, 0.8],
      'births.cap': 2000,
      'motion.speed': [0.4, 1.3],
      'motion.opening': 50,
      'life.size': {
        base: [0.01, 0.024],
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
          [0.5, 0.8],
          [1, 0],
        ],
      },
      'life.intensity': [2, 4.5],
      'appearance.facing': 'motion',
      'appearance.lengthening': 0.04,
    },
    step('drawn', { shape: 'soft dot', softness: 40 }),
  );
  colour(sparks, [0, named('lamp')], [1, named('ember')]);
  forces(
    sparks,
    force('gravity', null, { strength: -0.8 }),
    force('curl', null, { strength: 3, size: 0.3, change: 1.2 }),
    force('drag', null, { strength: 1.8 }),
  );

  const heart = layer(
    'Lamp laid bare',
    0x307405,
    { kind: 'point', place: CHEST },
    {
      'births.standing': 1,
      'motion.ride': 100,
      'life.size': {
        base: 1.1,
        over: [
          [0, 0],
          [0.08, 0.5],
          [0.3, 1],
          [0.75, 0.8],
          [0.86, 0],
        ],
        reads: 'effectTime',
      },
      'life.opacity': {
        base: 100,
        over: [
          [0, 0],
          [0.08, 1],
          [0.7, 0.9],
          [0.86, 0],
        ],
        reads: 'effectTime',
      },
      'life.intensity': 2.2,
      'life.turning': 26,
      'appearance.nudge': 0.35,
    },
    step('drawn', { shape: 'flare', width: 12, softness: 60 }),
  );
  colour(heart, [0, named('lamp')]);

  const halo = layer(
    'Light they go to',
    0x307406,
    { kind: 'point', place: LIGHT },
    {
      'births.standing': 1,
      'motion.ride': 100,
      'life.size': {
        base: 1.3,
        over: [
          [0, 0.5],
          [0.5, 0.7],
          [0.8, 1.2],
          [1, 1],
        ],
        reads: 'effectTime',
      },
      'life.opacity': {
        base: 34,
        over: [
          [0, 0.4],
          [0.5, 0.6],
          [0.8, 1],
          [1, 0.5],
        ],
        reads: 'effectTime',
      },
      'appearance.nudge': 0.2,
    },
    step('drawn', { shape: 'soft dot', softness: 60 }),
  );
  colour(halo, [0, named('lamp')]);

  const light = (name: string, salt: number, place: typeof CHEST, over: Points, strength: number) =>
    standingLight(name, salt, place, strength, over, named('lamp'), { reach: 3 });
  layers(effect, {
    heart,
    moths,
    sparks,
    halo,
    peat,
    body,
    water: darkWater('Peat water', 0x307409, atThing(BOGLING), 4.8, {}, '#2b2118'),
    light1: light(
      'Light of the lamp laid bare',
      0x307407,
      CHEST,
      [
        [0, 0.1],
        [0.3, 1],
        [0.7, 1],
        [0.86, 0],
      ],
      3,
    ),
    light2: light(
      'Light of Tallow’s lamp',
      0x307408,
      LIGHT,
      [
        [0, 0.5],
        [0.6, 0.7],
        [0.85, 1.4],
        [1, 0.8],
      ],
      1.6,
    ),
  });
  return effect;
}
