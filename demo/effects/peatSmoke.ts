import {
  atEffect,
  burst,
  collectionOf,
  inWorld,
  newEffect,
  newLink,
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
  meshes,
  named,
  shimmer,
  step,
  type KitAssets,
} from './build.ts';

/** Vents along a crack in the ground, and when each puffs. */
const CRACK: readonly Vector[] = [
  [-1.15, 0, 0.15],
  [-0.45, 0, -0.12],
  [0.3, 0, 0.1],
  [1.05, 0, -0.15],
];
const EVERY = 1.6;

/** Peat Smoke: vents along a crack puff in turn; each puff dissolves into spores, lit from the embers below. */
export function peatSmoke(kit: KitAssets): Effect {
  const effect = newEffect('Peat Smoke', 77_123);
  effect.stretches = { opening: 0, hold: { kind: 'continuing', seconds: EVERY * 2 }, closing: 1.4, preRoll: 1.2 };
  effect.palette = collectionOf([
    ['ember', namedColour('Ember', '#ff7b2e')],
    ['peat', namedColour('Peat', '#4a4038')],
    ['spore', namedColour('Spore', '#e6d27a')],
  ]);
  effect.stage.things = collectionOf([
    ['bogling', { ...newThing('Bogling', kit['bogling']!), clip: 'idle', at: [0.3, 0, -0.95] as Vector }],
  ]);
  const inTurn = (n: number, count: number) =>
    collectionOf([['puff', { ...burst('hold', 0.1 + (n * EVERY) / CRACK.length, count), times: 2, every: EVERY }]]);

  const puffs = CRACK.map((at, n) => {
    const puff = meshes(
      layer(
        `Puff ${n + 1}`,
        0x9ea701 + n,
        { kind: 'disc', place: atEffect(at) },
        {
          'source.radius': 0.07,
          'births.life': [1.5, 2.1],
          'motion.launch': 'axis',
          'motion.speed': [0.55, 0.95],
          'motion.opening': 16,
          'life.size': {
            base: [0.42, 0.66],
            over: [
              [0, 0.25],
              [0.25, 0.8],
              [1, 1.3],
            ],
          },
          'life.turning': [-50, 50],
          'life.opacity': 100,
          'appearance.facing': 'own frame',
          'appearance.blend': 'solid',
          'appearance.lit': 'card',
        },
        step('drawn', { shape: 'clouds', grains: 5, softness: 90, onto: 'colour', amount: 45 }),
        step('dissolve', {
          amount: {
            base: 100,
            over: [
              [0, 0],
              [0.3, 0.02],
              [0.75, 0.55],
              [1, 1],
            ],
          },
          grains: 4.5,
          softness: 3,
          edge: 9,
          glow: 3.2,
          colour: named('ember'),
        }),
      ),
      kit,
      ['puff'],
      { roughness: 95, shadow: true },
    );
    puff.settings['appearance.blend'].base.value = 'holes';
    puff.settings['life.tilt'].base = { kind: 'spread', low: [-180, -180, -180], high: [180, 180, 180] };
    puff.settings['life.axle'].base = { kind: 'spread', low: [-1, -1, -1], high: [1, 1, 1] };
    puff.bursts = inTurn(n, 4);
    const link = newLink('death', 'spores', 0x9ea751 + n);
    link.settings.count.base = { kind: 'spread', low: 9, high: 15 };
    puff.links = collectionOf([['spores', link]]);
    colour(puff, [0, hex('#2b2420')], [0.3, named('peat')], [1, hex('#6b6258')]);
    forces(
      puff,
      force('gravity', null, { strength: -0.5 }),
      force('drag', null, { strength: 0.9 }),
      force('curl', null, { strength: 0.7, size: 0.8, change: 0.4 }),
    );
    return [`puff${n + 1}`, puff] as const;
  });

  const haze = layer(
    'Smoke about them',
    0x9ea711,
    { kind: 'path', place: atEffect(), points: CRACK.map((at) => [...at] as Vector), closed: false },
    {
      'births.rate': 13,
      'births.life': [1.8, 2.6],
      'motion.launch': 'axis',
      'motion.speed': [0.2, 0.5],
      'life.size': {
        base: [0.7, 1.15],
        over: [
          [0, 0.4],
          [1, 1.3],
        ],
      },
      'life.opacity': {
        base: 30,
        over: inAndOut(0.3),
      },
      'life.angle': [-180, 180],
      'life.turning': [-14, 14],
      'appearance.blend': 'normal',
      'appearance.lit': 'ball',
      'appearance.order': 'nearest',
    },
    step('drawn', { shape: 'soft dot', softness: 25 }),
    step('drawn', { shape: 'clouds', grains: 2.6, softness: 70, amount: 85 }),
    step('soft', { distance: 0.3 }),
  );
  colour(haze, [0, hex('#3a332d')], [1, hex('#55504a')]);
  forces(
    haze,
    force('curl', null, { strength: 0.6, size: 0.9, change: 0.3 }),
    force('drag', null, { strength: 0.8 }),
    force('gravity', null, { strength: -0.25 }),
  );

  const spores = layer(
    'Spores',
    0x9ea721,
    { kind: 'point', place: inWorld() },
    {
      'births.life': [0.9, 1.9],
      'motion.launch': 'any',
      'motion.speed': [0.15, 0.55],
      'life.size': {
        base: [0.018, 0.04],
        over: [
          [0, 0.4],
          [0.3, 1],
          [1, 0.5],
        ],
      },
      'life.opacity': {
        base: 100,
        over: [
          [0, 0],
          [0.12, 1],
          [0.7, 0.8],
          [1, 0],
        ],
      },
      'life.intensity': [1.6, 3.2],
      'appearance.blend': 'mixed',
      'appearance.covers': 45,
    },
    step('drawn', { shape: 'soft dot', softness: 40 }),
  );
  colour(spores, [0, named('ember')], [0.3, named('spore')], [1, hex('#7f8a3c')]);
  forces(
    spores,
    force('curl', null, { strength: 1.6, size: 0.5, change: 0.6 }),
    force('gravity', null, { strength: -0.2 }),
    force('drag', null, { strength: 1.4 }),
  );

  const crack = layer(
    'Glowing crack',
    0x9ea731,
    { kind: 'path', place: atEffect([0, 0, 0]), points: CRACK.map((at) => [...at] as Vector), closed: false },
    {
      'source.order': 'even',
      'births.standing': 26,
      'life.size': [0.22, 0.42],
      'life.height': 45,
      'life.angle': [-30, 30],
      'life.opacity': {
        base: 95,
        over: [
          [0, 1],
          [0.8, 1],
          [1, 0],
        ],
      },
      'life.intensity': [0.9, 1.8],
      'appearance.facing': 'ground',
    },
    step('warp', { strength: 40, grains: 4 }),
    step('drawn', { shape: 'streak', width: 44, softness: 60 }),
    step('drawn', { shape: 'clouds', grains: 5, softness: 50, change: 0.7, amount: 80 }),
  );
  colour(crack, [0, named('ember')]);

  const scorch = layer(
    'Scorched ground',
    0x9ea733,
    { kind: 'path', place: atEffect([0, 0, 0]), points: CRACK.map((at) => [...at] as Vector), closed: false },
    {
      'source.order': 'even',
      'births.standing': 10,
      'life.size': [0.6, 0.95],
      'life.opacity': 80,
      'life.angle': [-180, 180],
      'appearance.facing': 'ground',
      'appearance.blend': 'multiply',
    },
    step('drawn', { shape: 'soft dot', softness: 30 }),
    step('drawn', { shape: 'clouds', grains: 4, softness: 60, amount: 60 }),
  );
  colour(scorch, [0, hex('#2a2019')]);

  const light = drawn(
    layer(
      'Light from below',
      0x9ea741,
      { kind: 'path', place: atEffect([0, 0.12, 0]), points: CRACK.map((at) => [...at] as Vector), closed: false },
      {
        'source.order': 'even',
        'births.standing': 4,
        'life.intensity': {
          base: 2.6,
          over: [
            [0, 1],
            [0.3, 0.75],
            [0.5, 1.1],
            [0.7, 0.8],
            [1, 0],
          ],
        },
      },
    ),
    'light',
    { reach: 1.7, surfaces: 1 },
  );
  colour(light, [0, named('ember')]);
  layers(effect, {
    spores,
    haze,
    ...Object.fromEntries(puffs),
    crack,
    scorch,
    embers: shimmer('Embers in the peat', 0x9ea752, inWorld(), 4.4, named('ember'), 35),
    soot: darkWater('Sooted ground', 0x9ea751, inWorld(), 4.4, {}, '#231c17'),
    light,
  });
  return effect;
}
