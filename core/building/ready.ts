import {
  atEffect,
  atThing,
  freeName,
  inWorld,
  listed,
  measuresOf,
  newFront,
  newLayer,
  newRibbon,
  newSurface,
  structuredCopy,
  withItem,
  type DrawnMesh,
  type Effect,
  type Id,
  type Layer,
  type Place,
  settingsByName,
  type NumberSetting,
  type Vector,
} from '../document/index.ts';
import { colour, force, forces, gradient, hex, inAndOut, layer, standingLight, step } from './build.ts';
import { bentAir, dust, flash, ring, struck, trail } from './readyBursts.ts';
import { crackle, debris, halo, held, one, orbit, shell, spring, streaks, swirl } from './readyRound.ts';
import { glow, lasts, line, mark, skin, sweep } from './readyLasting.ts';

/** What a layer can be from its first instant on: each is made of plain settings, to be changed one by one. */
export const READY = {
  dots: 'soft dots',
  one: 'just one, still',
  flame: 'a flame',
  smoke: 'smoke',
  sparks: 'sparks',
  spring: 'a spring of drops',
  halo: 'a halo of motes',
  streaks: 'rising streaks',
  swirl: 'a swirl round a core',
  orbit: 'marks that orbit',
  flash: 'a flash',
  ring: 'a growing ring',
  dust: 'a burst of dust',
  bent: 'a flare with bent air',
  struck: 'a struck shield',
  ribbons: 'ribbons that fly',
  trail: 'the trail of a weapon',
  blade: 'the sweep of a blade',
  glow: 'a glow',
  mark: 'a mark on the ground',
  line: 'a line that is written',
  skin: 'a skin over a body',
  crackle: 'a crackle over a body',
  held: 'a body, held and freed',
  mesh: 'a mesh that stands, as a shell',
  debris: 'falling debris',
  light: 'a light',
} as const;
export type ReadyKind = keyof typeof READY;
const NAMES: Record<ReadyKind, string> = {
  dots: 'Dots',
  one: 'One',
  flame: 'Flame',
  smoke: 'Smoke',
  sparks: 'Sparks',
  spring: 'Spring',
  halo: 'Halo',
  streaks: 'Streaks',
  swirl: 'Swirl',
  orbit: 'Orbit',
  flash: 'Flash',
  ring: 'Ring',
  dust: 'Dust',
  bent: 'Bent air',
  struck: 'Struck',
  ribbons: 'Ribbons',
  trail: 'Trail',
  blade: 'Blade',
  glow: 'Glow',
  mark: 'Mark',
  line: 'Line',
  skin: 'Skin',
  crackle: 'Crackle',
  held: 'Pieces',
  mesh: 'Shield',
  debris: 'Debris',
  light: 'Light',
};
/** The file of the kit whose mesh a ready layer begins with. */
export const READY_MESH: Partial<Record<ReadyKind, string>> = { mesh: 'dome.glb', debris: 'block.glb' };

/** What a ready layer is fitted to. */
export interface ReadyAbout {
  /** Its own 32 random bits. */
  readonly salt: number;
  /** The layer at whose place it stands. */
  readonly beside: Id;
  /** The two places between which a blade lies: grip and tip. */
  readonly blade: readonly [Place, Place];
  /** The mesh it is drawn as, where it is drawn as one. */
  readonly mesh?: Omit<DrawnMesh, 'chance'> | null;
  /** Metres that the first figure is tall. */
  readonly tall?: number;
  /** An id for what it needs beside itself. */
  readonly needId?: Id;
}

/** Where a layer's source stands; null where it has no place of its own. */
const placeOf = (made: Layer | undefined): Place | null =>
  made && 'place' in made.source ? made.source.place : null;
/** How wide what it stands beside is; a radius that goes round a figure where that is not known. */
function radiusOf(beside: Layer | undefined, tall: number): number {
  const radius = beside?.settings['source.radius'].base;
  const isRound = beside && measuresOf(beside.source.kind).includes('source.radius');
  return isRound && radius?.kind === 'fixed' && radius.value > 0.1 ? radius.value : 0.36 * tall;
}

/**
 * Adds a layer of a kind in front of an effect's others, with what it needs and nothing else: what is held has a front that
 * frees it, what falls a ground to fall on. It stands where the layer `beside` stands, or a metre up in the effect, before a
 * figure; what is over a body is over the first thing on the stage.
 */
export function addReady(draft: Effect, id: Id, kind: ReadyKind, about: ReadyAbout): void {
  const need = about.needId ?? `${id}n`;
  const [thing] = draft.stage.things.order;
  if (kind === 'held') {
    const chest = thing ? atThing(thing, [0, 0.6 * (about.tall ?? TALL), 0]) : atEffect([0, 1, 0]);
    const front = newFront(freeName(draft.fronts, 'Front'), 'sphere', chest);
    draft.fronts = withItem(draft.fronts, need, front);
  }
  draft.layers = withItem(draft.layers, id, readyLayer(draft, kind, about, need), 0);
  if (kind === 'debris') fallOnGround(draft, id, need);
}
/** Lets a layer meet the ground that there is, or one of its own. */
function fallOnGround(draft: Effect, layer: Id, need: Id): void {
  const ground = listed(draft.surfaces).find(({ item }) => item.kind === 'ground' && !item.muted)?.item;
  if (!ground)
    draft.surfaces = withItem(draft.surfaces, need, {
      ...newSurface('ground', { place: inWorld() }),
      layers: [layer],
    });
  // An empty list is every layer.
  else if (ground.layers.length > 0) ground.layers.push(layer);
}
/** Metres of a figure that nobody has measured. */
const TALL = 1.75;

function readyLayer(effect: Effect, kind: ReadyKind, about: ReadyAbout, need: Id): Layer {
  const { salt, blade, mesh = null, tall = TALL } = about;
  const [thing] = effect.stage.things.order;
  const beside = effect.layers.byId[about.beside];
  /** Where the other layer stands; without one, so high up in the effect. */
  const at = (...offset: Vector): Place => structuredCopy(placeOf(beside) ?? atEffect(offset));
  const place = at(0, 1, thing ? 0.5 : 0);
  // What goes round a figure has it in its middle.
  const middle = at(0, 0.55 * tall, 0);
  const radius = radiusOf(beside, tall);
  const name = freeName(effect.layers, NAMES[kind]);
  const body = thing ?? 'figure';
  switch (kind) {
    case 'dots':
      return { ...newLayer(name, salt), source: { kind: 'sphere', place } };
    case 'one':
      return lasts(one(name, salt, place), effect);
    case 'flame':
      return flame(name, salt, place);
    case 'smoke':
      return smoke(name, salt, place);
    case 'sparks':
      return sparks(name, salt, place);
    case 'spring':
      return spring(name, salt, at(0, 0.1, 0));
    case 'halo':
      return halo(name, salt, middle, radius);
    case 'streaks':
      return streaks(name, salt, at(0, 0.2, 0), radius);
    case 'swirl':
      return swirl(name, salt, place, radius);
    case 'orbit':
      return orbit(name, salt, middle, radius, (made) => lasts(made, effect));
    case 'flash':
      return flash(name, salt, place, effect);
    case 'ring':
      return ring(name, salt, at(0, 0.04, 0), effect);
    case 'dust':
      return dust(name, salt, effect);
    case 'bent':
      return bentAir(name, salt, place, effect);
    case 'struck':
      return struck(name, salt, effect);
    case 'ribbons':
      return ribbons(name, salt, place);
    case 'trail':
      return lasts(trail(name, salt, structuredCopy(blade[1])), effect);
    case 'blade':
      return sweep(name, salt, blade);
    case 'glow':
      return lasts(glow(name, salt, place), effect);
    case 'mark':
      return lasts(mark(name, salt), effect);
    case 'line':
      return line(name, salt);
    case 'skin':
      return lasts(skin(name, salt, place, body), effect);
    case 'crackle':
      return crackle(name, salt, body);
    case 'held':
      return held(name, salt, body, need);
    case 'mesh':
      return lasts(shell(name, salt, at(0, 0.01, 0), mesh, 2.3 * tall), effect);
    case 'debris':
      return debris(name, salt, place, mesh, effect);
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
