import {
  atEffect,
  burst,
  collectionOf,
  newRibbon,
  structuredCopy,
  type Effect,
  type Id,
  type Key,
  type Layer,
  type Place,
  type Shaper,
  type Vector,
} from '../document/index.ts';
import { colour, drawn, gradient, hex, inAndOut, layer, step } from './build.ts';

const STANDING = { 'births.standing': 1, 'motion.ride': 100 };
const [FADE_IN, FADE_OUT] = [0.3, 0.4];

/** A way in when the effect begins and out when it ends, in seconds: what stands is as it is for as long as it is held. */
function lasting({ stretches: { opening, hold, closing } }: Pick<Effect, 'stretches'>): Shaper {
  const whole = opening + closing + (hold.kind === 'none' ? 0 : hold.seconds);
  const fadeIn = Math.min(FADE_IN, whole / 4);
  // Held without a closing it ends at once when it is let go: there is no time to fade in.
  const fadeOut = Math.min(FADE_OUT, hold.kind === 'none' ? whole / 4 : closing);
  const key = (anchor: Key['at']['anchor'], seconds: number, value: number): Key => ({
    at: { anchor, value: seconds },
    value,
    slopeIn: 0,
    slopeOut: 0,
  });
  const keys: (readonly [Id, Key])[] = [
    ['in', key('afterBirth', 0, 0)],
    ['full', key('afterBirth', fadeIn, 1)],
    ...(fadeOut > 0
      ? ([
          ['last', key('beforeDeath', fadeOut, 1)],
          ['out', key('beforeDeath', 0, 0)],
        ] as const)
      : []),
  ];
  return {
    reads: { kind: 'age' },
    mapping: { kind: 'curve', curve: { keys: collectionOf(keys) } },
    combine: 'multiply',
    amount: 1,
    muted: false,
  };
}
/** Lets a standing layer last as long as its effect, by one of its settings. */
export function lasts(
  made: Layer,
  effect: Effect,
  setting: 'life.opacity' | 'life.intensity' = 'life.opacity',
): Layer {
  made.settings[setting].shapers = collectionOf([['lasts', lasting(effect)]]);
  return made;
}

export const glow = (name: string, salt: number, place: Place): Layer =>
  colour(
    layer(
      name,
      salt,
      { kind: 'point', place },
      { ...STANDING, 'life.size': 0.7, 'life.opacity': 55, 'life.intensity': 1.6 },
      step('drawn', { shape: 'soft dot', softness: 100 }),
    ),
    [0, hex('#ffd79a')],
  );

export const mark = (name: string, salt: number): Layer =>
  colour(
    layer(
      name,
      salt,
      { kind: 'point', place: atEffect([0, 0.02, 0]) },
      {
        ...STANDING,
        'life.size': 2.6,
        'life.intensity': 1.5,
        'life.turning': 12,
        'appearance.facing': 'ground',
        'appearance.blend': 'mixed',
        'appearance.covers': 35,
      },
      step('warp', { strength: 4, grains: 6 }),
      step('drawn', { shape: 'ring', width: 9, softness: 70 }),
      step('drawn', { shape: 'clouds', grains: 9, softness: 85, amount: 50 }),
    ),
    [0, hex('#8fe0d0')],
  );

/** Points of a circle on the ground, in metres, in the order in which they are written. */
const ROUND: readonly Vector[] = Array.from({ length: 9 }, (_, n) => {
  const points: readonly [number, number][] = [
    [1.2, 0],
    [0.85, 0.85],
    [0, 1.2],
    [-0.85, 0.85],
    [-1.2, 0],
    [-0.85, -0.85],
    [0, -1.2],
    [0.85, -0.85],
    [1.2, 0],
  ];
  const [x, z] = points[n]!;
  return [x, 0, z];
});
export function line(name: string, salt: number): Layer {
  const made = layer(
    name,
    salt,
    {
      kind: 'path',
      place: atEffect([0, 0.04, 0]),
      points: ROUND.map((point) => [...point] as Vector),
      closed: false,
    },
    {
      'source.order': 'walking',
      'source.walk': 80,
      'births.rate': 80,
      'births.life': 2.5,
      'life.size': {
        base: 0.16,
        over: [
          [0, 0.25],
          [0.1, 1.25],
          [0.2, 1],
          [0.85, 1],
          [1, 0.2],
        ],
      },
      'life.opacity': { base: 100, over: inAndOut(0.05, 0.82) },
      'life.intensity': {
        base: 1.5,
        over: [
          [0, 2.4],
          [0.12, 1.1],
          [1, 1],
        ],
      },
      'appearance.blend': 'mixed',
      'appearance.covers': 55,
    },
    gradient('across', [0, '#202020'], [0.3, '#a0a0a0'], [0.5, '#ffffff'], [0.7, '#a0a0a0'], [1, '#202020']),
  );
  made.births.until = { after: { kind: 'border', border: 'start' }, seconds: 1, measure: null };
  made.drawn = newRibbon('strand');
  return colour(made, [0, hex('#f0fff8')], [0.2, hex('#5fd0bd')], [1, hex('#14505a')]);
}

export function sweep(name: string, salt: number, [from, to]: readonly [Place, Place]): Layer {
  const made = layer(
    name,
    salt,
    { kind: 'point', place: structuredCopy(from) },
    {
      'births.life': 0.7,
      'life.opacity': { base: 85, over: inAndOut(0.1, 0.7) },
      'life.intensity': {
        base: 1.6,
        over: [
          [0, 1.4],
          [1, 0.6],
        ],
      },
      'appearance.blend': 'mixed',
      'appearance.covers': 30,
    },
    gradient('across', [0, '#282828'], [0.7, '#b8b8b8'], [1, '#ffffff']),
    step('drawn', { shape: 'clouds', grains: 3, softness: 80, amount: 60 }),
  );
  made.bursts = collectionOf([['once', burst('hold', 0.2, 1)]]);
  made.drawn = newRibbon('blade', structuredCopy(from), structuredCopy(to));
  return colour(made, [0, hex('#cfe86a')]);
}

export function skin(name: string, salt: number, place: Place, thing: Id): Layer {
  const made = drawn(
    layer(
      name,
      salt,
      { kind: 'point', place },
      { ...STANDING, 'life.intensity': 1.6, 'appearance.blend': 'additive' },
      step('rim', { does: 'shows the rim only', sharpness: 2.2, intensity: 1 }),
    ),
    'body',
    {},
    { thing },
  );
  return colour(made, [0, hex('#bfe8ff')]);
}
