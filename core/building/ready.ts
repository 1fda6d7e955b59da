import {
  atEffect,
  freeName,
  newLayer,
  newRibbon,
  structuredCopy,
  type Effect,
  type Id,
  type Layer,
  type Place,
  settingsByName,
  type NumberSetting,
} from '../document/index.ts';
import { colour, force, forces, gradient, hex, inAndOut, layer, standingLight, step } from './build.ts';
import { glow, lasts, line, mark, skin, sweep } from './readyLasting.ts';

/** What a layer can be from its first instant on: each is made of plain settings, to be changed one by one. */
export const READY = {
  dots: 'soft dots',
  flame: 'a flame',
  smoke: 'smoke',
  sparks: 'sparks',
  ribbons: 'ribbons that fly',
  glow: 'a glow',
  mark: 'a mark on the ground',
  line: 'a line that is written',
  blade: 'the sweep of a blade',
  skin: 'a skin over a body',
  light: 'a light',
} as const;
export type ReadyKind = keyof typeof READY;
const NAMES: Record<ReadyKind, string> = {
  dots: 'Dots',
  flame: 'Flame',
  smoke: 'Smoke',
  sparks: 'Sparks',
  ribbons: 'Ribbons',
  glow: 'Glow',
  mark: 'Mark',
  line: 'Line',
  blade: 'Blade',
  skin: 'Skin',
  light: 'Light',
};

/** Where a layer's source stands; null where it has no place of its own. */
const placeOf = (made: Layer | undefined): Place | null =>
  made && 'place' in made.source ? made.source.place : null;

/**
 * A layer of a kind for an effect: it stands where the layer `beside` stands, or a metre up in the effect, before a figure; a skin is
 * that of the first thing on the stage; a blade lies between the two places of `blade`. `salt` is its own 32 random bits.
 */
export function readyLayer(
  effect: Effect,
  kind: ReadyKind,
  salt: number,
  beside: Id,
  blade: readonly [Place, Place],
): Layer {
  const [thing] = effect.stage.things.order;
  const known = placeOf(effect.layers.byId[beside]);
  const place = structuredCopy(known ?? atEffect([0, 1, thing ? 0.5 : 0]));
  const name = freeName(effect.layers, NAMES[kind]);
  switch (kind) {
    case 'dots':
      return { ...newLayer(name, salt), source: { kind: 'sphere', place } };
    case 'flame':
      return flame(name, salt, place);
    case 'smoke':
      return smoke(name, salt, place);
    case 'sparks':
      return sparks(name, salt, place);
    case 'ribbons':
      return ribbons(name, salt, place);
    case 'glow':
      return lasts(glow(name, salt, place), effect);
    case 'mark':
      return lasts(mark(name, salt), effect);
    case 'line':
      return line(name, salt);
    case 'blade':
      return sweep(name, salt, blade);
    case 'skin':
      return lasts(skin(name, salt, place, thing ?? 'figure'), effect);
    case 'light':
      return lasts(standingLight(name, salt, place, 2.5, [], hex('#ffca7a'), { reach: 3 }), effect, 'life.intensity');
  }
}
/** Tongues of fire that rise and lean. */
export function flame(name: string, salt: number, place: Place): Layer {
  const made = layer(
    name,
    salt,
    { kind: 'sphere', place },
    {
      'source.radius': 0.035,
      'births.rate': 46,
      'births.life': [0.32, 0.52],
      'motion.launch': 'axis',
      'motion.speed': [0.35, 0.75],
      'motion.opening': 12,
      'motion.ride': 60,
      'life.size': {
        base: [0.28, 0.42],
        over: [
          [0, 0.55],
          [0.3, 1],
          [1, 0.28],
        ],
      },
      'life.width': 62,
      'life.opacity': {
        base: 92,
        over: [
          [0, 0],
          [0.15, 1],
          [0.6, 0.8],
          [1, 0],
        ],
      },
      'life.intensity': {
        base: 1.35,
        over: [
          [0, 1.3],
          [1, 0.6],
        ],
      },
      'life.angle': [-14, 14],
      'appearance.facing': 'upright',
      'appearance.blend': 'mixed',
      'appearance.covers': 22,
      'appearance.pivotAlong': 20,
    },
    step('warp', { strength: 16, grains: 2.4, change: 1.6 }),
    step('drawn', { shape: 'soft dot', softness: 30 }),
    step('drawn', { shape: 'clouds', grains: 2.4, softness: 70, change: 1.4, amount: 65 }),
    step('levels', { onto: 'opacity', black: 8, white: 62 }),
    gradient('out from the middle', [0, '#ffffff'], [0.4, '#d8d8d8'], [0.75, '#a0a0a0'], [1, '#404040']),
  );
  forces(
    made,
    force('gravity', null, { strength: -2.4 }),
    force('curl', null, { strength: 2.6, size: 0.16, change: 2.4 }),
    force('drag', null, { strength: 1.4 }),
  );
  return colour(made, [0, hex('#ffdc9a')], [0.4, hex('#ff9a3a')], [1, hex('#e8480c')]);
}

function smoke(name: string, salt: number, place: Place): Layer {
  const made = layer(
    name,
    salt,
    { kind: 'sphere', place },
    {
      'source.radius': 0.1,
      'births.rate': 12,
      'births.life': [1.6, 2.4],
      'motion.launch': 'axis',
      'motion.speed': [0.3, 0.7],
      'motion.opening': 18,
      'life.size': {
        base: [0.4, 0.7],
        over: [
          [0, 0.35],
          [1, 1.5],
        ],
      },
      'life.opacity': { base: 60, over: inAndOut(0.15, 0.55) },
      'life.angle': [-180, 180],
      'life.turning': [-25, 25],
      'appearance.blend': 'normal',
      'appearance.lit': 'ball',
      'appearance.order': 'nearest',
    },
    step('drawn', { shape: 'soft dot', softness: 25 }),
    step('drawn', { shape: 'clouds', grains: 2.6, softness: 65, amount: 85 }),
    step('soft', { distance: 0.2 }),
  );
  forces(
    made,
    force('gravity', null, { strength: -0.4 }),
    force('curl', null, { strength: 0.7, size: 0.8, change: 0.4 }),
    force('drag', null, { strength: 0.9 }),
  );
  return colour(made, [0, hex('#6a625a')], [1, hex('#3a3835')]);
}

const THROWN = {
  'source.radius': 0.04,
  'births.life': [0.5, 1.1],
  'motion.launch': 'any',
  'motion.speed': [1, 2.6],
  'life.opacity': { base: 100, over: inAndOut(0.05, 0.7) },
  'life.intensity': [2, 3.5],
} as const;
const fall = (made: Layer): Layer =>
  forces(made, force('gravity', null, { strength: 5 }), force('drag', null, { strength: 1.2 }));

function sparks(name: string, salt: number, place: Place): Layer {
  const made = layer(
    name,
    salt,
    { kind: 'sphere', place },
    {
      ...THROWN,
      'births.rate': 60,
      'life.size': {
        base: [0.014, 0.034],
        over: [
          [0, 1],
          [1, 0.3],
        ],
      },
      'appearance.facing': 'motion',
      'appearance.lengthening': 0.03,
    },
    step('drawn', { shape: 'soft dot', softness: 40 }),
  );
  return colour(fall(made), [0, hex('#fff6dc')], [0.4, hex('#ffd27a')], [1, hex('#ff7a2c')]);
}

function ribbons(name: string, salt: number, place: Place): Layer {
  const made = layer(
    name,
    salt,
    { kind: 'sphere', place },
    {
      ...THROWN,
      'births.rate': 9,
      'births.life': [0.9, 1.5],
      'life.size': {
        base: [0.05, 0.09],
        over: [
          [0, 1],
          [1, 0.2],
        ],
      },
      'appearance.blend': 'mixed',
      'appearance.covers': 30,
    },
    gradient('across', [0, '#303030'], [0.35, '#b4b4b4'], [0.5, '#ffffff'], [0.65, '#b4b4b4'], [1, '#303030']),
  );
  made.drawn = newRibbon('trail');
  const settings = settingsByName<NumberSetting>(made.drawn);
  settings['seconds']!.base = { kind: 'fixed', value: 0.4 };
  return colour(fall(made), [0, hex('#ffcf70')], [1, hex('#ff8420')]);
}
