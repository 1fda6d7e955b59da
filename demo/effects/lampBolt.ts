import {
  collectionOf,
  burst,
  inWorld,
  namedColour,
  newEffect,
  newRibbon,
  newThing,
  type Effect,
  type Place,
  type Vector,
  settingsByName,
  type NumberSetting,
  setWidthAlong,
} from '@jinx/core/document';
import {
  colour,
  force,
  forces,
  gradient,
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

const [TALLOW, BOGLING] = ['tallow', 'bogling'];
const LENGTH = 3.2;
/** Seconds at which it leaves the hand, and at which it lands. */
const [THROWN, LANDS] = [0.45, 1.1];
const FROM: Vector = [-1.5, 1.25, 0.25];
const TO: Vector = [1.35, 0.05, 0.35];
const RISE = 1.1;
const share = (seconds: number) => seconds / LENGTH;

/** The arc from hand to ground, as keys of a place. */
function flight(): Place {
  const count = 8;
  const keys = Array.from({ length: count + 1 }, (_, n) => {
    const t = n / count;
    const offset = FROM.map((a, axis) => a + (TO[axis]! - a) * t + (axis === 1 ? RISE * 4 * t * (1 - t) : 0));
    const at = THROWN + (LANDS - THROWN) * t;
    return [`k${n}`, { at, offset: offset as Vector, turn: [0, 0, 0] as Vector, ease: 'straight' as const }] as const;
  });
  return { ...inWorld(FROM), keys: collectionOf(keys) };
}
/** Whole from `from` seconds until `until`, with a short way in and out. */
const during = (from: number, until: number, way = 0.05): Points => [
  [0, 0],
  [share(Math.max(0.01, from - way)), 0],
  [share(from), 1],
  [share(until), 1],
  [share(until + way), 0],
  [1, 0],
];

/** Lamp Bolt: a light thrown in an arc that sheds moths; where it lands a fan of light runs over the ground. */
export function lampBolt(kit: KitAssets): Effect {
  const effect = newEffect('Lamp Bolt', 27_803);
  effect.stretches = { opening: LENGTH, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
  effect.palette = collectionOf([
    ['lamp', namedColour('Lamp', '#ffd27a')],
    ['heart', namedColour('Heart', '#fff6dc')],
    ['ember', namedColour('Ember', '#ff7a2c')],
    ['moth', namedColour('Moth', '#e8dcc2')],
  ]);
  effect.stage.things = collectionOf([
    [TALLOW, { ...newThing('Tallow', kit['tallow']!), clip: 'cast', at: [-1.9, 0, 0] as Vector, facing: 80 }],
    [BOGLING, { ...newThing('Bogling', kit['bogling']!), clip: 'stand', at: [2.2, 0, 0] as Vector, facing: -80 }],
  ]);
  effect.stage.cameras = collectionOf([
    [
      'whole',
      {
        name: 'The whole flight',
        position: [0.9, 2.1, 6.4] as Vector,
        target: [0.05, 0.95, 0.2] as Vector,
        fieldOfView: 34,
        follows: false,
      },
    ],
  ]);
  const ground = inWorld([TO[0], 0.02, TO[2]]);
  const flies = { 'births.standing': 1, 'motion.ride': 100 };

  const heart = layer(
    'Bolt',
    0x1a3b01,
    { kind: 'point', place: flight() },
    {
      ...flies,
      'life.size': { base: 0.34, over: during(0.2, LANDS, 0.15), reads: 'effectTime' },
      'life.opacity': { base: 100, over: during(0.1, LANDS), reads: 'effectTime' },
      'life.intensity': 2.4,
      'appearance.blend': 'mixed',
      'appearance.covers': 55,
    },
    step('warp', { strength: 9, grains: 2.6, change: 2.4 }),
    step('drawn', { shape: 'soft dot', softness: 45 }),
    gradient('out from the middle', [0, '#fffbea'], [0.45, '#ffe09a'], [0.8, '#ff9a3c'], [1, '#7a2d06']),
  );
  colour(heart, [0, named('heart')]);

  const halo = layer(
    'Halo',
    0x1a3b02,
    { kind: 'point', place: flight() },
    {
      ...flies,
      'life.size': { base: 1.25, over: during(0.2, LANDS, 0.2), reads: 'effectTime' },
      'life.opacity': { base: 38, over: during(0.1, LANDS), reads: 'effectTime' },
      'life.intensity': 1.2,
    },
    step('drawn', { shape: 'soft dot', softness: 100 }),
  );
  colour(halo, [0, named('lamp')]);

  const tail = layer(
    'Tail',
    0x1a3b03,
    { kind: 'point', place: flight() },
    {
      ...flies,
      'life.size': { base: 0.3, over: during(THROWN, LANDS + 0.2, 0.1), reads: 'effectTime' },
      'life.opacity': { base: 90, over: during(THROWN, LANDS + 0.15, 0.1), reads: 'effectTime' },
      'life.intensity': 1.7,
      'appearance.blend': 'mixed',
      'appearance.covers': 30,
    },
    gradient('across', [0, '#5a2404'], [0.3, '#ff9a3c'], [0.5, '#fff2c8'], [0.7, '#ff9a3c'], [1, '#5a2404']),
    step('drawn', { shape: 'clouds', grains: 4, softness: 80, amount: 55 }),
  );
  const band = newRibbon('trail');
  settingsByName<NumberSetting>(band)['seconds']!.base = { kind: 'fixed', value: 0.34 };
  setWidthAlong(band, 90, 0);
  tail.drawn = band;
  colour(tail, [0, named('lamp')]);

  const sparks = layer(
    'Sparks',
    0x1a3b04,
    { kind: 'sphere', place: flight() },
    {
      'source.radius': 0.08,
      'births.rate': { base: 190, over: during(THROWN, LANDS), reads: 'effectTime' },
      'births.life': [0.35, 0.8],
      'motion.launch': 'any',
      'motion.speed': [0.2, 0.9],
      'motion.ride': 12,
      'life.size': { base: [0.014, 0.034], over: inAndOut(0.1, 0.4) },
      'life.opacity': { base: 100, over: inAndOut(0.05, 0.7) },
      'life.intensity': [2, 3.6],
      'appearance.facing': 'motion',
      'appearance.lengthening': 0.03,
    },
    step('drawn', { shape: 'soft dot', softness: 40 }),
  );
  colour(sparks, [0, named('heart')], [0.4, named('lamp')], [1, named('ember')]);
  forces(
    sparks,
    force('gravity', null, { strength: 2.2 }),
    force('drag', null, { strength: 1.6 }),
    force('curl', null, { strength: 3, size: 0.3, change: 1.5 }),
  );

  const moths = layer(
    'Moths',
    0x1a3b05,
    { kind: 'sphere', place: flight() },
    {
      'source.radius': 0.16,
      'births.rate': { base: 46, over: during(THROWN, LANDS), reads: 'effectTime' },
      'births.life': [0.9, 1.7],
      'motion.launch': 'any',
      'motion.speed': [0.3, 0.9],
      'motion.ride': 6,
      'life.size': {
        base: [0.07, 0.13],
        over: [
          [0, 0.2],
          [0.15, 1],
          [0.85, 0.9],
          [1, 0.1],
        ],
      },
      'life.opacity': { base: 100, over: inAndOut(0.08, 0.8) },
      'life.intensity': {
        base: [0.8, 1.2],
        over: [
          [0, 2.2],
          [0.3, 1],
          [1, 0.8],
        ],
      },
      'life.angle': [-60, 60],
      'appearance.blend': 'normal',
    },
    picture(kit['moth']!, 'moth', { columns: 4, rows: 2, plays: 'by the clock', rate: [16, 26], first: [0, 100] }),
  );
  colour(moths, [0, named('lamp')], [0.3, named('moth')], [1, named('moth')]);
  forces(
    moths,
    force('gravity', null, { strength: -0.5 }),
    force('drag', null, { strength: 1.1 }),
    force('curl', null, { strength: 4.5, size: 0.5, change: 1.2 }),
  );

  const landed = (made: ReturnType<typeof layer>, count: number, after = 0) => {
    made.bursts = collectionOf([['lands', burst('opening', LANDS + after, count)]]);
    return made;
  };
  const flare = landed(
    layer(
      'Flare where it lands',
      0x1a3b06,
      { kind: 'point', place: inWorld([TO[0], 0.25, TO[2]]) },
      {
        'births.life': 0.4,
        'life.size': {
          base: 2.4,
          over: [
            [0, 0.5],
            [0.25, 1],
            [1, 1.1],
          ],
        },
        'life.opacity': { base: 100, over: inAndOut(0.05) },
        'life.intensity': 2.2,
        'appearance.nudge': 0.5,
      },
      step('drawn', { shape: 'flare', width: 10, softness: 45 }),
    ),
    1,
  );
  colour(flare, [0, named('lamp')]);

  const fan = landed(
    layer(
      'Fan of light',
      0x1a3b07,
      { kind: 'disc', place: ground },
      {
        'source.radius': 0.12,
        'births.life': [0.45, 0.9],
        'motion.launch': 'outward',
        'motion.speed': [2.2, 5.4],
        'life.size': {
          base: [0.07, 0.16],
          over: [
            [0, 0.5],
            [0.2, 1],
            [1, 0.15],
          ],
        },
        'life.opacity': { base: 95, over: inAndOut(0.04, 0.4) },
        'life.intensity': { base: 1.9, over: inAndOut(0.01, 0.2) },
        'appearance.facing': 'motion',
        'appearance.lengthening': 0.16,
        'appearance.blend': 'mixed',
        'appearance.covers': 35,
      },
      step('drawn', { shape: 'soft dot', softness: 35 }),
      step('drawn', { shape: 'clouds', grains: 3, softness: 80, amount: 35 }),
    ),
    64,
  );
  colour(fan, [0, named('heart')], [0.25, named('lamp')], [1, named('ember')]);
  forces(fan, force('drag', null, { strength: 3.4 }));

  const wave = landed(
    layer(
      'Wave on the ground',
      0x1a3b08,
      { kind: 'point', place: ground },
      {
        'births.life': 0.7,
        'life.size': {
          base: 4.8,
          over: [
            [0, 0.1],
            [0.35, 0.75],
            [1, 1],
          ],
        },
        'life.opacity': { base: 90, over: inAndOut(0.06, 0.2) },
        'life.intensity': 1.5,
        'appearance.facing': 'ground',
        'appearance.blend': 'mixed',
        'appearance.covers': 30,
      },
      step('warp', { strength: 7, grains: 5 }),
      step('drawn', { shape: 'ring', width: 12, softness: 85 }),
      step('drawn', { shape: 'clouds', grains: 8, softness: 90, amount: 60 }),
    ),
    1,
  );
  colour(wave, [0, named('heart')], [0.4, named('lamp')], [1, named('ember')]);

  const shade = landed(
    layer(
      'Shade under the wave',
      0x1a3b0c,
      { kind: 'point', place: ground },
      {
        'births.life': 0.9,
        'life.size': {
          base: 6,
          over: [
            [0, 0.15],
            [0.3, 0.9],
            [1, 1],
          ],
        },
        'life.opacity': { base: 82, over: inAndOut(0.08, 0.5) },
        'appearance.facing': 'ground',
        'appearance.blend': 'multiply',
      },
      step('drawn', { shape: 'disc', softness: 45 }),
    ),
    1,
  );
  colour(shade, [0, hex('#3a2f22')]);

  const stays = [
    [0, 0],
    [0.05, 1],
    [0.6, 0.9],
    [1, 0],
  ] as const;
  const scorch = landed(
    layer(
      'Scorch that stays',
      0x1a3b09,
      { kind: 'point', place: ground },
      {
        'births.life': 2,
        'life.size': 2.1,
        'life.opacity': { base: 88, over: stays },
        'appearance.facing': 'ground',
        'appearance.blend': 'multiply',
      },
      step('warp', { strength: 18, grains: 3 }),
      step('drawn', { shape: 'disc', softness: 75 }),
      step('drawn', { shape: 'clouds', grains: 4, softness: 70, amount: 45 }),
    ),
    1,
  );
  colour(scorch, [0, hex('#1c1712')]);

  const glow = landed(
    layer(
      'Glow in the scorch',
      0x1a3b0a,
      { kind: 'point', place: inWorld([TO[0], 0.03, TO[2]]) },
      {
        'births.life': 1.6,
        'life.size': 1.5,
        'life.opacity': {
          base: 100,
          over: [
            [0, 0],
            [0.06, 1],
            [0.4, 0.7],
            [1, 0],
          ],
        },
        'life.intensity': {
          base: 2.4,
          over: [
            [0, 1],
            [1, 0.3],
          ],
        },
        'appearance.facing': 'ground',
      },
      step('warp', { strength: 16, grains: 5, change: 0.3 }),
      step('drawn', { shape: 'cells', grains: 7, softness: 100 }),
      step('levels', { onto: 'opacity', black: 22, white: 2 }),
      step('drawn', { shape: 'soft dot', softness: 60 }),
    ),
    1,
  );
  colour(glow, [0, named('lamp')], [0.4, named('ember')], [1, named('ember')]);

  const smoke = landed(
    layer(
      'Smoke',
      0x1a3b0b,
      { kind: 'disc', place: ground },
      {
        'source.radius': 0.35,
        'source.region': 'volume',
        'births.life': [0.9, 1.7],
        'motion.launch': 'axis',
        'motion.speed': [0.3, 0.9],
        'motion.opening': 30,
        'life.size': {
          base: [0.3, 0.6],
          over: [
            [0, 0.4],
            [1, 1.6],
          ],
        },
        'life.opacity': { base: 46, over: inAndOut(0.2) },
        'life.angle': [-180, 180],
        'life.turning': [-30, 30],
        'appearance.blend': 'normal',
        'appearance.lit': 'ball',
        'appearance.order': 'nearest',
      },
      step('drawn', { shape: 'soft dot', softness: 25 }),
      step('drawn', { shape: 'clouds', grains: 2.6, softness: 65, amount: 85 }),
      step('soft', { distance: 0.2 }),
    ),
    16,
    0.05,
  );
  colour(smoke, [0, hex('#6a5a48')], [1, hex('#38342f')]);
  forces(smoke, force('drag', null, { strength: 1.2 }), force('gravity', null, { strength: -0.4 }));

  layers(effect, {
    heart,
    halo,
    tail,
    sparks,
    moths,
    flare,
    fan,
    wave,
    glow,
    scorch,
    shade,
    smoke,
    light: standingLight(
      'Light of the bolt',
      0x1a3b0d,
      flight(),
      3,
      [
        [0, 0],
        [share(THROWN), 0.6],
        [share(LANDS), 1],
        [share(LANDS + 0.1), 1.6],
        [share(LANDS + 0.8), 0.5],
        [1, 0],
      ],
      named('lamp'),
      { reach: 4.5 },
    ),
  });
  return effect;
}
