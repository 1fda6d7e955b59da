import {
  choice,
  LIFE,
  number,
  SPREAD,
  TIMED,
  vector,
  type Declaration,
  type NumberDeclaration,
  type Vector,
} from '../../settings/index.ts';

const strength = (name: string, help: string, byDefault: number, unit: NumberDeclaration['unit'] = 'm/s²') =>
  number('force', 'step', name, help, { unit, least: -1000, most: 1000, byDefault, bases: SPREAD, reads: LIFE });
const positive = (name: string, help: string, byDefault: number, unit: NumberDeclaration['unit'], most = 1000) =>
  number('force', 'step', name, help, { unit, least: 0, most, byDefault, bases: SPREAD, reads: LIFE });
const shared = (
  name: string,
  help: string,
  byDefault: number,
  unit: NumberDeclaration['unit'],
  least = 0,
  most = 1000,
) => number('force', 'step', name, help, { unit, least, most, byDefault, reads: TIMED });
const axis = (help: string, byDefault: Vector) =>
  vector('force', 'step', 'axis', help, { unit: '', least: -1, most: 1, byDefault });

/** Where and on whom a force acts: what every kind of force has. */
const WHERE = {
  reach: number('force', 'step', 'reach', 'Distance from its place at which the force has faded to nothing.', {
    unit: 'm',
    least: 0,
    most: 1000,
    byDefault: 0,
    reads: TIMED,
    zero: 'any distance',
  }),
  falloff: choice(
    'force',
    'step',
    'falloff',
    'How the force fades toward its reach: softly, on an even slope, not at all until there, or by the square.',
    ['soft', 'even slope', 'none', 'by the square'],
    'soft',
  ),
  share: number('force', 'step', 'share', 'Share of the particles it acts on, always the same ones.', {
    unit: '%',
    least: 0,
    most: 100,
    byDefault: 100,
  }),
} as const;

/** What pushes also have: nothing below a threshold. */
const PUSH = {
  ...WHERE,
  threshold: number('force', 'step', 'threshold', 'It acts only where it would push at least this hard.', {
    unit: 'm/s²',
    least: 0,
    most: 1000,
    byDefault: 0,
    zero: 'any strength',
  }),
} as const;

/** What is felt from one spot also has: how near it, it weakens. */
const SPOT = {
  ...PUSH,
  softness: number(
    'force',
    'step',
    'softness',
    'How near its middle it weakens, so that nothing is flung from the very spot.',
    { unit: 'm', least: 0.001, most: 100, byDefault: 0.05 },
  ),
} as const;

/** Every setting of each kind of force. */
export const FORCE_SETTINGS = {
  gravity: { strength: strength('strength', 'Acceleration downward.', 9.81), ...PUSH },
  wind: {
    strength: positive('strength', 'Share of the difference to the wind taken up each second.', 0.5, '/s'),
    speed: shared('wind speed', 'How fast the wind blows.', 3, 'm/s', -200, 200),
    axis: axis('Where the wind blows to.', [1, 0, 0]),
    ...WHERE,
  },
  drag: {
    strength: positive('strength', 'Share of the speed lost each second, continuously.', 1, '/s'),
    air: positive(
      'air drag',
      'Drag that grows with speed: share of the speed lost for each metre travelled.',
      0,
      '/m',
    ),
    ...WHERE,
  },
  attraction: {
    strength: strength('strength', 'Acceleration toward the place; negative pushes away.', 4),
    toward: choice(
      'force',
      'step',
      'toward',
      'What particles are drawn to: a point, a line, the nearest spot of a thing’s skin, or the spot each was born on.',
      ['point', 'line', 'skin', 'own spot'],
      'point',
    ),
    length: shared('line length', 'Length of the line, half of it to either side of its place.', 2, 'm', 0, 100),
    axis: axis('Direction of the line.', [0, 1, 0]),
    ...SPOT,
  },
  vortex: {
    strength: strength('spin', 'Acceleration round the axis.', 4),
    pull: strength('pull', 'Acceleration toward the axis.', 0),
    lift: strength('lift', 'Acceleration along the axis.', 0),
    axis: axis('The axis that is turned round.', [0, 1, 0]),
    ...SPOT,
  },
  orbit: {
    distance: positive('distance', 'Distance at which particles are held.', 1, 'm'),
    speed: number('force', 'step', 'speed round', 'Speed round the axis; 0 leaves each its own.', {
      unit: 'm/s',
      least: -200,
      most: 200,
      byDefault: 2,
      bases: SPREAD,
      reads: LIFE,
      zero: 'its own',
    }),
    grip: number('force', 'step', 'grip', 'How firmly they are held; 100 leaves no play.', {
      unit: '%',
      least: 0,
      most: 100,
      byDefault: 100,
      bases: SPREAD,
      reads: LIFE,
    }),
    about: choice(
      'force',
      'step',
      'about',
      'Whether the distance is held from an axis or from a point.',
      ['axis', 'point'],
      'axis',
    ),
    axis: axis('The axis that is turned round.', [0, 1, 0]),
    ...WHERE,
  },
  curl: {
    strength: strength('strength', 'How hard the swirls push.', 2),
    size: number('force', 'step', 'swirl size', 'Width of one swirl.', {
      unit: 'm',
      least: 0.01,
      most: 100,
      byDefault: 0.5,
    }),
    change: number('force', 'step', 'change', 'How many times a second the field becomes another.', {
      unit: '/s',
      least: 0,
      most: 100,
      byDefault: 0.5,
    }),
    drift: vector('force', 'step', 'drift', 'How the whole field moves.', {
      unit: 'm/s',
      least: -100,
      most: 100,
      byDefault: [0, 0, 0],
    }),
    ...PUSH,
  },
  jitter: {
    strength: strength('strength', 'How hard each particle is shaken, its own way.', 4),
    change: number('force', 'step', 'change', 'How many times a second each is pushed another way.', {
      unit: '/s',
      least: 0.1,
      most: 120,
      byDefault: 8,
    }),
    ...PUSH,
  },
  push: {
    strength: strength('strength', 'How hard the shell pushes outward as it passes; negative pulls in.', 30),
    start: shared('start', 'When the shell leaves its place, in seconds of the effect.', 0, 's', 0, 3600),
    speed: shared('spreading', 'How fast the shell spreads.', 6, 'm/s', 0, 500),
    width: shared('width', 'How far before and behind the shell is felt.', 0.5, 'm', 0.01, 100),
    ...SPOT,
  },
  limit: {
    fastest: positive('fastest', 'No particle is faster than this.', 2, 'm/s', 10_000),
    grip: number('force', 'step', 'grip', 'How much of the excess is taken away each step.', {
      unit: '%',
      least: 0,
      most: 100,
      byDefault: 100,
      bases: SPREAD,
      reads: LIFE,
    }),
    ...WHERE,
  },
  velocity: {
    x: strength('along x', 'Speed along x, beside their own.', 0, 'm/s'),
    y: strength('along y', 'Speed along y, beside their own.', 1, 'm/s'),
    z: strength('along z', 'Speed along z, beside their own.', 0, 'm/s'),
    ...WHERE,
  },
  displacement: {
    x: strength('along x', 'How far they are moved along x; shape it over age.', 0, 'm'),
    y: strength('along y', 'How far they are moved along y; shape it over age.', 0, 'm'),
    z: strength('along z', 'How far they are moved along z; shape it over age.', 0, 'm'),
    share: WHERE.share,
  },
} as const satisfies Record<string, Record<string, Declaration>>;

export type ForceKind = keyof typeof FORCE_SETTINGS;
export const FORCE_KINDS = Object.keys(FORCE_SETTINGS) as ForceKind[];

/** What each kind of force is called. */
export const FORCE_NAMES: Record<ForceKind, string> = {
  gravity: 'Gravity',
  wind: 'Wind',
  drag: 'Drag',
  attraction: 'Attraction',
  vortex: 'Vortex',
  orbit: 'Orbit',
  curl: 'Curl noise',
  jitter: 'Jitter',
  push: 'Spreading push',
  limit: 'Speed limit',
  velocity: 'Velocity',
  displacement: 'Displacement',
};

/** What a kind of force is called within a sentence. */
export const forceWord = (kind: ForceKind): string => FORCE_NAMES[kind].toLowerCase();
