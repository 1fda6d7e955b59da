import {
  atEffect,
  burst,
  collectionOf,
  firstHit,
  newRibbon,
  type Effect,
  type Layer,
  type NumberSetting,
  type Place,
  settingsByName,
} from '../document/index.ts';
import { colour, drawn, force, forces, gradient, hex, inAndOut, layer, step } from './build.ts';

/** One that is born when the effect holds, or half into what it has. */
const atOnce = (made: Layer, count: number, { stretches: { opening, hold } }: Pick<Effect, 'stretches'>): Layer => {
  const isHeld = hold.kind !== 'none';
  made.bursts = collectionOf([
    ['once', burst(isHeld ? 'hold' : 'opening', isHeld ? 0.2 : Math.min(0.2, opening / 4), count)],
  ]);
  return made;
};

/** A ring that runs outward and grows thin. */
export const ring = (name: string, salt: number, place: Place, effect: Effect): Layer =>
  atOnce(
    colour(
      layer(
        name,
        salt,
        { kind: 'point', place },
        {
          'births.life': 0.8,
          'life.size': {
            base: 2.4,
            over: [
              [0, 0.1],
              [0.35, 0.72],
              [1, 1],
            ],
          },
          'life.opacity': { base: 90, over: inAndOut(0.08, 0.35) },
          'life.intensity': 1.8,
          'appearance.facing': 'ground',
          'appearance.blend': 'mixed',
          'appearance.covers': 20,
        },
        step('drawn', {
          shape: 'ring',
          softness: 70,
          width: {
            base: 34,
            over: [
              [0, 1],
              [1, 0.25],
            ],
          },
        }),
      ),
      [0, hex('#fff0c8')],
      [0.4, hex('#ffb45a')],
      [1, hex('#c8481c')],
    ),
    1,
    effect,
  );

/** Light for an instant: rays added to a soft disc. */
export const flash = (name: string, salt: number, place: Place, effect: Effect): Layer =>
  atOnce(
    colour(
      layer(
        name,
        salt,
        { kind: 'point', place },
        {
          'births.life': 0.28,
          'life.size': {
            base: 1.3,
            over: [
              [0, 0.55],
              [0.25, 1],
              [1, 0.8],
            ],
          },
          'life.opacity': {
            base: 100,
            over: inAndOut(0.08, 0.2),
          },
          'life.intensity': {
            base: 3,
            over: [
              [0, 1.4],
              [1, 0.3],
            ],
          },
          'life.angle': [-180, 180],
        },
        step('drawn', { shape: 'soft dot', softness: 85 }),
        step('drawn', { shape: 'star', points: 7, width: 14, softness: 60, combines: 'add', amount: 70 }),
      ),
      [0, hex('#fff4dc')],
      [1, hex('#ff9a3c')],
    ),
    1,
    effect,
  );

/** Dust thrown aside along the ground, that slows down and settles. */
export function dust(name: string, salt: number, effect: Effect): Layer {
  const made = layer(
    name,
    salt,
    { kind: 'ring', place: atEffect([0, 0.06, 0]) },
    {
      'source.radius': 0.3,
      'births.life': [0.7, 1.3],
      'motion.launch': 'outward',
      'motion.speed': [1, 2.6],
      'motion.opening': 14,
      'life.size': {
        base: [0.3, 0.55],
        over: [
          [0, 0.4],
          [1, 1.5],
        ],
      },
      'life.opacity': { base: 55, over: inAndOut(0.08, 0.3) },
      'life.angle': [-180, 180],
      'life.turning': [-30, 30],
      'appearance.blend': 'normal',
      'appearance.lit': 'ball',
    },
    step('drawn', { shape: 'soft dot', softness: 25 }),
    step('drawn', { shape: 'clouds', grains: 2.4, softness: 65, amount: 85 }),
    step('soft', { distance: 0.15 }),
  );
  forces(made, force('drag', null, { strength: 3 }), force('gravity', null, { strength: -0.25 }));
  return atOnce(colour(made, [0, hex('#8a7a66')], [1, hex('#5c5348')]), 34, effect);
}

/** A flare with bent air: a ring of it that runs outward. */
export const bentAir = (name: string, salt: number, place: Place, effect: Effect): Layer =>
  atOnce(
    drawn(
      layer(
        name,
        salt,
        { kind: 'point', place },
        {
          'births.life': 0.7,
          'life.size': {
            base: 2.6,
            over: [
              [0, 0.12],
              [0.4, 0.75],
              [1, 1],
            ],
          },
          'life.opacity': {
            base: 100,
            over: inAndOut(0.08, 0.35),
          },
        },
      ),
      'haze',
      { strength: 7, inner: 45, outer: 100, softness: 80 },
    ),
    1,
    effect,
  );

/** Light that runs over what is struck, at each hit. */
export function struck(name: string, salt: number, effect: Effect): Layer {
  const made = layer(
    name,
    salt,
    { kind: 'hits', hits: collectionOf([['first', firstHit(effect)]]) },
    {
      'source.perHit': 1,
      'births.life': 0.9,
      'life.size': {
        base: 1.3,
        over: [
          [0, 0.12],
          [0.4, 0.75],
          [1, 1],
        ],
      },
      'life.opacity': { base: 95, over: inAndOut(0.06, 0.4) },
      'life.intensity': 2,
    },
    step('warp', { strength: 5, grains: 5 }),
    step('drawn', { shape: 'ring', width: 16, softness: 70 }),
    step('drawn', { shape: 'polygon', points: 6, width: 6, softness: 40, combines: 'add', amount: 60 }),
  );
  return colour(made, [0, hex('#e8fbff')], [0.5, hex('#7fd0e8')], [1, hex('#2a6a9a')]);
}

/** The way of one point, drawn behind it: wide behind its tip, nothing at its tail. */
export function trail(name: string, salt: number, tip: Place): Layer {
  const made = layer(
    name,
    salt,
    { kind: 'point', place: tip },
    {
      'births.standing': 1,
      'motion.ride': 100,
      'life.size': 0.16,
      'life.intensity': 1.7,
      'appearance.blend': 'mixed',
      'appearance.covers': 25,
    },
    gradient('across', [0, '#202020'], [0.5, '#ffffff'], [1, '#202020']),
  );
  made.drawn = newRibbon('trail');
  settingsByName<NumberSetting>(made.drawn)['seconds']!.base = { kind: 'fixed', value: 0.35 };
  return colour(made, [0, hex('#cfe86a')]);
}
