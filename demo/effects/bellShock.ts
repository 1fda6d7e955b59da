import {
  atThing,
  burst,
  collectionOf,
  inWorld,
  newEffect,
  newSurface,
  newThing,
  type Effect,
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
  step,
  type KitAssets,
} from './build.ts';

const TALLOW = 'tallow';
/** Three tolls, so far apart. */
const [TOLLS, EVERY] = [3, 0.95];
const MIDDLE = atThing(TALLOW, [0, 0.02, 0]);

/** Bell Shock: three tolls, each a shell of bent air, dust that jumps from the ground, and reeds thrown flat. */
export function bellShock(kit: KitAssets): Effect {
  const effect = newEffect('Bell Shock', 52_031);
  effect.stretches = { opening: TOLLS * EVERY + 0.9, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
  effect.palette = collectionOf([
    ['bell', namedColour('Bell', '#ffdf9a')],
    ['air', namedColour('Struck air', '#9fd8d0')],
    ['dust', namedColour('Dust', '#9a8f78')],
  ]);
  effect.stage.things = collectionOf([[TALLOW, { ...newThing('Tallow', kit['tallow']!), clip: 'raise' }]]);
  effect.surfaces = collectionOf([
    ['ground', { ...newSurface('ground', { place: inWorld() }), layers: ['reeds', 'grit'] }],
  ]);
  const tolled = <T extends ReturnType<typeof layer>>(made: T, count: number, later = 0): T => {
    made.bursts = collectionOf([['toll', { ...burst('opening', 0.25 + later, count), times: TOLLS, every: EVERY }]]);
    return made;
  };
  const outward = {
    base: 1,
    over: [
      [0, 0.04],
      [0.25, 0.5],
      [0.6, 0.85],
      [1, 1],
    ] as const,
  };
  const size = (metres: number) => ({ ...outward, base: metres });

  const bent = tolled(
    drawn(
      layer(
        'Bent air',
        0xbe1101,
        { kind: 'point', place: atThing(TALLOW, [0, 1, 0]) },
        {
          'births.life': 0.85,
          'life.size': size(5.4),
          'life.opacity': {
            base: 100,
            over: [
              [0, 0],
              [0.04, 1],
              [0.6, 0.8],
              [1, 0],
            ],
          },
          'appearance.nudge': 0.9,
        },
      ),
      'haze',
      { strength: 9, inner: 62, outer: 100, softness: 70, tinted: 24 },
    ),
    1,
  );
  colour(bent, [0, named('air')]);

  const shell = tolled(
    meshes(
      layer(
        'Shell',
        0xbe1102,
        { kind: 'point', place: MIDDLE },
        {
          'births.life': 0.8,
          'life.size': size(5),
          'life.height': 150,
          'life.opacity': {
            base: 75,
            over: [
              [0, 0],
              [0.1, 1],
              [0.5, 0.5],
              [1, 0],
            ],
          },
          'life.intensity': {
            base: 1.5,
            over: [
              [0, 1.6],
              [1, 0.5],
            ],
          },
          'appearance.facing': 'ground',
          'appearance.lit': 'card',
          'appearance.litShare': 0,
        },
        step('rim', { does: 'shows the rim only', sharpness: 2.6, intensity: 1.2 }),
        step('soft', { distance: 0.35 }),
      ),
      kit,
      ['dome'],
    ),
    1,
  );
  colour(shell, [0, named('bell')], [1, named('air')]);

  const wave = tolled(
    layer(
      'Wave on the ground',
      0xbe1103,
      { kind: 'point', place: MIDDLE },
      {
        'births.life': 0.9,
        'life.size': size(6.2),
        'life.opacity': {
          base: 90,
          over: [
            [0, 0],
            [0.08, 1],
            [0.5, 0.55],
            [1, 0],
          ],
        },
        'life.intensity': 1.5,
        'appearance.facing': 'ground',
        'appearance.blend': 'mixed',
        'appearance.covers': 30,
      },
      step('warp', { strength: 5, grains: 6 }),
      step('drawn', { shape: 'ring', width: 9, softness: 80 }),
      step('drawn', { shape: 'clouds', grains: 9, softness: 90, amount: 55 }),
    ),
    1,
  );
  colour(wave, [0, named('bell')], [1, named('air')]);

  const shade = tolled(
    layer(
      'Shade under the wave',
      0xbe1104,
      { kind: 'point', place: MIDDLE },
      {
        'births.life': 1.1,
        'life.size': size(5.6),
        'life.opacity': {
          base: 70,
          over: inAndOut(0.15),
        },
        'appearance.facing': 'ground',
        'appearance.blend': 'multiply',
      },
      step('drawn', { shape: 'ring', width: 34, softness: 95 }),
    ),
    1,
  );
  colour(shade, [0, hex('#3a352c')]);

  const dust = tolled(
    layer(
      'Dust',
      0xbe1105,
      { kind: 'ring', place: MIDDLE },
      {
        'source.radius': 0.5,
        'source.thickness': 0.5,
        'births.life': [0.7, 1.3],
        'motion.launch': 'outward',
        'motion.speed': [2.2, 4.4],
        'motion.velocity': [0, 0.9, 0],
        'life.size': {
          base: [0.4, 0.8],
          over: [
            [0, 0.4],
            [1, 1.4],
          ],
        },
        'life.opacity': {
          base: 44,
          over: inAndOut(0.12),
        },
        'life.angle': [-180, 180],
        'life.turning': [-40, 40],
        'appearance.blend': 'normal',
        'appearance.lit': 'ball',
        'appearance.order': 'nearest',
      },
      step('drawn', { shape: 'soft dot', softness: 25 }),
      step('drawn', { shape: 'clouds', grains: 2.8, softness: 65, amount: 85 }),
      step('soft', { distance: 0.25 }),
    ),
    46,
    0.03,
  );
  colour(dust, [0, named('dust')]);
  forces(dust, force('drag', null, { strength: 3.2 }), force('gravity', null, { strength: 1.1 }));

  const grit = tolled(
    layer(
      'Grit that jumps',
      0xbe1106,
      { kind: 'disc', place: MIDDLE },
      {
        'source.radius': 2.4,
        'source.region': 'volume',
        'births.life': [0.5, 0.9],
        'motion.launch': 'axis',
        'motion.speed': [1.2, 3],
        'motion.opening': 18,
        'life.size': {
          base: [0.012, 0.035],
          over: [
            [0, 1],
            [1, 0.5],
          ],
        },
        'life.opacity': {
          base: 100,
          over: inAndOut(0.04, 0.7),
        },
        'appearance.blend': 'normal',
        'appearance.lit': 'ball',
      },
      step('drawn', { shape: 'disc', softness: 40 }),
    ),
    190,
    0.06,
  );
  colour(grit, [0, hex('#b7aa8e')]);
  forces(grit, force('gravity', null, { strength: 9.81 }));

  const reeds = tolled(
    meshes(
      layer(
        'Reeds',
        0xbe1107,
        { kind: 'ring', place: MIDDLE },
        {
          'source.radius': 0.7,
          'source.thickness': 0.5,
          'births.life': [1.1, 1.7],
          'motion.launch': 'outward',
          'motion.speed': [2.6, 4.6],
          'motion.velocity': [0, 1.5, 0],
          'life.size': {
            base: [0.3, 0.55],
            over: inAndOut(0.1, 0.8),
          },
          'life.turning': [-300, 300],
          'appearance.facing': 'own frame',
          'appearance.blend': 'solid',
          'appearance.lit': 'card',
        },
      ),
      kit,
      ['reed'],
      { roughness: 70, shadow: true },
    ),
    16,
    0.04,
  );
  reeds.settings['life.tilt'].base = { kind: 'spread', low: [40, -180, -30], high: [110, 180, 30] };
  reeds.settings['life.axle'].base = { kind: 'spread', low: [-0.3, 1, -0.3], high: [0.3, 1, 0.3] };
  colour(reeds, [0, hex('#8a9a4e')], [1, hex('#6a5a34')]);
  forces(reeds, force('gravity', null, { strength: 7 }), force('drag', null, { strength: 1.2 }));

  const flare = tolled(
    layer(
      'Clang',
      0xbe1108,
      { kind: 'point', place: atThing(TALLOW, [0, 1.5, 0.1]) },
      {
        'births.life': 0.35,
        'life.size': {
          base: 1.6,
          over: [
            [0, 0.4],
            [0.3, 1],
            [1, 1.1],
          ],
        },
        'life.opacity': {
          base: 100,
          over: inAndOut(0.04),
        },
        'life.intensity': 2.6,
        'appearance.nudge': 0.6,
      },
      step('drawn', { shape: 'flare', width: 9, softness: 40 }),
    ),
    1,
  );
  colour(flare, [0, named('bell')]);

  const light = tolled(
    drawn(
      layer(
        'Light of the bell',
        0xbe1109,
        { kind: 'point', place: atThing(TALLOW, [0, 1.1, 0.5]) },
        {
          'births.life': 0.7,
          'life.intensity': 3.4,
          'life.opacity': {
            base: 100,
            over: [
              [0, 0],
              [0.04, 1],
              [0.4, 0.4],
              [1, 0],
            ],
          },
        },
      ),
      'light',
      { reach: 5 },
    ),
    1,
  );
  colour(light, [0, named('bell')]);
  layers(effect, {
    flare,
    bent,
    shell,
    dust,
    grit,
    reeds,
    wave,
    shade,
    silence: darkWater('Stilled water', 0xbe110b, MIDDLE, 5.6, {}, '#262a28'),
    light,
  });
  return effect;
}
