import {
  atThing,
  collectionOf,
  type Effect,
  type Hit,
  newHit,
  inWorld,
  namedColour,
  newEffect,
  newSurface,
  newThing,
  type Vector,
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
/** The shell stands about her, on the ground. */
const MIDDLE = [0, 0.12, 0.1] as const;
const SHELL = atThing(TALLOW, [...MIDDLE]);
const RADIUS = 1.55;

/** A blow on the shell from a direction: degrees round from where she looks, and up. */
const blow = (at: number, round: number, up: number): Hit => {
  const [a, b] = [(round * Math.PI) / 180, (up * Math.PI) / 180];
  const way: Vector = [Math.sin(a) * Math.cos(b), Math.sin(b), Math.cos(a) * Math.cos(b)];
  const offset = way.map((x, axis) => MIDDLE[axis]! + x * RADIUS) as Vector;
  return newHit('hold', at, atThing(TALLOW, offset, [90 - up, round, 0]));
};
const HITS = collectionOf([
  ['first', blow(0.8, 16, 38)],
  ['second', blow(2.4, -28, 24)],
]);

/** Salt Ward on Tallow as she guards: a shell of flat crystals that takes two blows. */
export function saltWard(kit: KitAssets): Effect {
  const effect = newEffect('Salt Ward', 41_007);
  effect.stretches = { opening: 0.9, hold: { kind: 'continuing', seconds: 4 }, closing: 0.9, preRoll: 0 };
  effect.palette = collectionOf([
    ['salt', namedColour('Salt', '#e8eef0')],
    ['rime', namedColour('Rime', '#8fd0e6')],
  ]);
  effect.stage.air.surroundings.picture = { asset: kit['marsh']!, name: 'marsh' };
  effect.surfaces = collectionOf([
    ['ground', { ...newSurface('ground', { place: inWorld() }), layers: ['loose', 'loose2'] }],
  ]);
  effect.stage.things = collectionOf([[TALLOW, { ...newThing('Tallow', kit['tallow']!), clip: 'guard' }]]);
  const gather = {
    base: [0.075, 0.135] as const,
    over: [
      [0, 0],
      [0.12, 1.15],
      [0.17, 1],
      [0.86, 1],
      [1, 0],
    ] as const,
    reads: 'effectTime' as const,
  };

  const crystals = meshes(
    layer(
      'Crystals',
      0x51a701,
      { kind: 'sphere', place: SHELL },
      {
        'source.radius': RADIUS,
        'source.rise': 92,
        'source.region': 'surface',
        'source.order': 'even',
        'births.standing': 520,
        'motion.ride': 100,
        'life.size': gather,
        'life.angle': [-180, 180],
        'life.tilt': [0, 0, 0],
        'appearance.facing': 'camera',
        'appearance.blend': 'mixed',
        'appearance.covers': 62,
        'appearance.lit': 'card',
        'appearance.litShare': 100,
        'life.opacity': 72,
        'life.intensity': [0.32, 0.75],
      },
      step('rim', { does: 'brightens the rim', sharpness: 1.6, intensity: 0.5, colour: named('rime') }),
    ),
    kit,
    ['salt'],
    { roughness: 18, metalness: 35 },
  );
  colour(crystals, [0, named('salt')]);

  const shell = meshes(
    layer(
      'Shell',
      0x51a702,
      { kind: 'point', place: SHELL },
      {
        'births.standing': 1,
        'motion.ride': 100,
        'life.size': {
          base: RADIUS * 2.04,
          over: [
            [0, 0.7],
            [0.16, 1],
            [0.86, 1],
            [1, 1.12],
          ],
          reads: 'effectTime',
        },
        'life.opacity': {
          base: 100,
          over: inAndOut(0.16, 0.86),
          reads: 'effectTime',
        },
        'appearance.facing': 'ground',
        'appearance.lit': 'card',
        'appearance.litShare': 0,
      },
      step('scroll', { along: 0.06, repeatAcross: 4, repeatAlong: 2 }),
      step('drawn', { shape: 'cells', grains: 3, softness: 60, varied: false, change: 0.12, amount: 70 }),
      step('rim', { does: 'shows the rim only', sharpness: 1.7, intensity: 1 }),
      step('soft', { distance: 0.18 }),
    ),
    kit,
    ['dome'],
  );
  colour(shell, [0, named('rime')]);

  const rings = layer(
    'Blows',
    0x51a703,
    { kind: 'hits', hits: HITS },
    {
      'source.perHit': 1,
      'births.life': 0.7,
      'life.size': {
        base: 1.7,
        over: [
          [0, 0.12],
          [0.3, 0.7],
          [1, 1],
        ],
      },
      'life.opacity': {
        base: 100,
        over: [
          [0, 0],
          [0.04, 1],
          [0.5, 0.5],
          [1, 0],
        ],
      },
      'life.intensity': 2.2,
      'appearance.facing': 'camera',
      'appearance.nudge': 0.3,
    },
    step('drawn', { shape: 'ring', width: 16, softness: 70 }),
    step('drawn', { shape: 'cells', grains: 9, softness: 80, amount: 60 }),
  );
  colour(rings, [0, named('salt')], [1, named('rime')]);

  const flash = layer(
    'Flash of a blow',
    0x51a704,
    { kind: 'hits', hits: HITS },
    {
      'source.perHit': 1,
      'births.life': 0.22,
      'life.size': {
        base: 0.9,
        over: [
          [0, 0.4],
          [1, 1],
        ],
      },
      'life.opacity': {
        base: 100,
        over: inAndOut(0.04),
      },
      'life.intensity': 3.4,
      'appearance.nudge': 0.4,
    },
    step('drawn', { shape: 'flare', width: 10, softness: 40 }),
  );
  colour(flash, [0, named('salt')]);

  const knocked = (id: 'first' | 'second', name: string, salt: number) => {
    const hit = HITS.byId[id]!;
    const loose = meshes(
      layer(
        name,
        salt,
        { kind: 'hits', hits: collectionOf([[id, hit]]) },
        {
          'source.perHit': 22,
          'births.life': [1.7, 2.3],
          'motion.launch': 'outward',
          'motion.speed': [0.8, 2.6],
          'motion.opening': 62,
          'life.size': {
            base: [0.07, 0.15],
            over: inAndOut(0.05, 0.85),
          },
          'life.tilt': [0, 0, 0],
          'life.turning': [-420, 420],
          'appearance.facing': 'own frame',
          'appearance.blend': 'solid',
          'appearance.lit': 'card',
        },
      ),
      kit,
      ['salt'],
      { roughness: 26, shadow: true },
    );
    loose.settings['life.tilt'].base = { kind: 'spread', low: [-180, -180, -180], high: [180, 180, 180] };
    loose.settings['life.axle'].base = { kind: 'spread', low: [-1, -1, -1], high: [1, 1, 1] };
    colour(loose, [0, named('salt')]);
    forces(
      loose,
      force('gravity', null, { strength: 7 }),
      // They lie for a while, and are then drawn back to where they were knocked out.
      force('attraction', hit.place, {
        strength: {
          base: 46,
          over: [
            [0, 0],
            [0.5, 0],
            [0.62, 1],
            [1, 1],
          ],
        },
      }),
      force('drag', null, {
        strength: {
          base: 11,
          over: [
            [0, 0],
            [0.55, 0],
            [0.7, 0.5],
            [1, 1],
          ],
        },
      }),
    );
    return loose;
  };
  const loose = knocked('first', 'Knocked loose', 0x51a705);
  const looseAgain = knocked('second', 'Knocked loose again', 0x51a70b);

  const grains = layer(
    'Grains',
    0x51a706,
    { kind: 'hits', hits: HITS },
    {
      'source.perHit': 70,
      'births.life': [0.5, 1.1],
      'motion.launch': 'outward',
      'motion.speed': [0.6, 3.4],
      'motion.opening': 80,
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
          [0.04, 1],
          [0.6, 0.8],
          [1, 0],
        ],
      },
      'life.intensity': 1.8,
      'appearance.facing': 'motion',
      'appearance.lengthening': 0.03,
    },
    step('drawn', { shape: 'soft dot', softness: 40 }),
  );
  colour(grains, [0, named('salt')], [1, named('rime')]);
  forces(grains, force('gravity', null, { strength: 3 }), force('drag', null, { strength: 2.2 }));

  const glint = layer(
    'Glints',
    0x51a707,
    { kind: 'sphere', place: SHELL },
    {
      'source.radius': RADIUS,
      'source.rise': 92,
      'source.region': 'surface',
      'births.rate': {
        base: 26,
        over: inAndOut(0.2, 0.85),
        reads: 'effectTime',
      },
      'births.life': [0.25, 0.5],
      'motion.ride': 100,
      'life.size': {
        base: [0.1, 0.24],
        over: inAndOut(0.5),
      },
      'life.opacity': {
        base: 100,
        over: inAndOut(0.5),
      },
      'life.intensity': [1.2, 2.4],
      'appearance.nudge': 0.15,
    },
    step('drawn', { shape: 'flare', width: 7, softness: 20 }),
  );
  colour(glint, [0, named('salt')]);

  const frost = layer(
    'Frost on the ground',
    0x51a708,
    { kind: 'point', place: atThing(TALLOW, [0, 0, 0.1]) },
    {
      'births.standing': 1,
      'motion.ride': 100,
      'life.size': {
        base: 3.5,
        over: [
          [0, 0.5],
          [0.16, 1],
          [1, 1],
        ],
        reads: 'effectTime',
      },
      'life.opacity': {
        base: 46,
        over: inAndOut(0.16, 0.86),
        reads: 'effectTime',
      },
      'appearance.facing': 'ground',
      'appearance.blend': 'mixed',
      'appearance.covers': 60,
    },
    step('drawn', { shape: 'ring', width: 55, softness: 90 }),
    step('drawn', { shape: 'cells', grains: 14, softness: 70, varied: false }),
  );
  colour(frost, [0, hex('#bcd8de')]);

  const glow = drawn(
    layer(
      'Light of a blow',
      0x51a709,
      { kind: 'hits', hits: HITS },
      {
        'source.perHit': 1,
        'births.life': 0.45,
        'life.intensity': 5,
        'life.opacity': {
          base: 100,
          over: inAndOut(0.12),
        },
      },
    ),
    'light',
    { reach: 3.2 },
  );
  colour(glow, [0, named('rime')]);
  layers(effect, {
    flash,
    rings,
    grains,
    glint,
    loose,
    loose2: looseAgain,
    crystals,
    shell,
    frost,
    brine: darkWater('Brine', 0x51a70a, atThing(TALLOW, [0, 0, 0.1]), 6, {}, '#1c2e36'),
    glow,
  });
  return effect;
}
