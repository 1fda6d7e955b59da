import { choice, LIFE, NONE, number, SPREAD, vector, type Declaration } from '../../../settings/index.ts';

const axisShare = (name: string, help: string, otherWords: readonly string[]) =>
  number('life', 'dress', name, help, {
    otherWords,
    unit: '%',
    least: 0,
    most: 10_000,
    byDefault: 100,
    bases: SPREAD,
    reads: LIFE,
  });

/** What changes over a particle’s life: size, opacity, colour and turning. */
export const LIFE_SETTINGS = {
  'life.size': number('life', 'dress', 'size', 'Diameter of a particle.', {
    otherWords: ['scale', 'initial size', 'particle size', 'size over life', 'diameter'],
    unit: 'm',
    least: 0,
    most: 100,
    byDefault: 0.05,
    bases: SPREAD,
    reads: LIFE,
  }),
  'life.opacity': number('life', 'dress', 'opacity', 'How opaque a particle is.', {
    otherWords: ['alpha', 'transparency', 'fade', 'fade in', 'fade out'],
    unit: '%',
    least: 0,
    most: 100,
    byDefault: 100,
    bases: SPREAD,
    reads: LIFE,
  }),
  'life.colour': {
    value: 'colour',
    chapter: 'life',
    acts: 'dress',
    name: 'colour',
    help: 'Colour at the start, then by gradient over age.',
    reads: LIFE,
    otherWords: ['color', 'tint', 'color by age', 'gradient over life', 'hue'],
    byDefault: '#ffffff',
  },
  'life.intensity': number('life', 'dress', 'intensity', 'Brightness of the colour; above 1 glows.', {
    otherWords: ['brightness', 'emissive', 'glow', 'emissive strength'],
    unit: '×',
    least: 0,
    most: 100,
    byDefault: 1,
    bases: SPREAD,
    reads: LIFE,
  }),
  'life.angle': number('life', 'dress', 'starting angle', 'Angle of the sprite at birth.', {
    otherWords: ['rotation', 'rotation at birth', 'initial rotation', 'random rotation', 'random turn'],
    unit: '°',
    least: -360,
    most: 360,
    byDefault: 0,
    bases: SPREAD,
  }),
  'life.turning': number('life', 'dress', 'turning', 'How fast the sprite turns.', {
    otherWords: [
      'spin',
      'rotation rate',
      'angular velocity',
      'rotation speed',
      'rotate over life',
      'rotation over time',
    ],
    unit: '°/s',
    least: -3600,
    most: 3600,
    byDefault: 0,
    bases: SPREAD,
    reads: ['age', 'dial'],
  }),
  'life.turns': choice(
    'life',
    'dress',
    'counted in',
    'Whether turning is degrees a second, or so many whole turns over a life however long it is.',
    ['degrees a second', 'turns a life'],
    'degrees a second',
    {
      otherWords: ['rotation units'],
      words: { 'degrees a second': 'a second', 'turns a life': 'times in its life' },
    },
  ),
  'life.aligned': {
    value: 'switch',
    chapter: 'life',
    acts: 'dress',
    name: 'along its motion',
    help: 'Whether the angle is counted from where the particle is going.',
    reads: NONE,
    otherWords: ['align to velocity', 'face the motion'],
    words: { yes: 'where it is going', no: 'upright' },
    byDefault: false,
  },

  'life.tilt': vector(
    'life',
    'dress',
    'tilt',
    'How sprites that stand in their own frame are turned at birth: degrees round X, then Y, then Z.',
    {
      otherWords: ['3D rotation', 'pitch', 'yaw', 'turned at random'],
      unit: '°',
      least: -3600,
      most: 3600,
      byDefault: [0, 0, 0],
      mayVary: true,
    },
  ),
  'life.axle': vector(
    'life',
    'dress',
    'axle',
    'What sprites that stand in their own frame turn about, an axis of the world; with none, of whatever comes.',
    { otherWords: ['rotation axis', 'spin axis'], unit: '', least: -1, most: 1, byDefault: [0, 0, 1], mayVary: true },
  ),

  'life.width': axisShare('width', 'Width as a share of the size.', ['aspect ratio', 'aspect', 'scale x', 'squash']),
  'life.height': axisShare('height', 'Height as a share of the size; along the motion, where it stands so.', [
    'scale y',
    'stretch',
  ]),
  'life.depth': axisShare('depth', 'Depth of a mesh as a share of the size.', ['thickness', 'z scale']),
} as const satisfies Record<string, Declaration>;
