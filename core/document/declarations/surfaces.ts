import { choice, LIFE, number, SPREAD, STILL, TIMED, type Declaration } from '../../settings/index.ts';

/** What a surface does to what it meets: what every kind of surface has. */
const MEETING = {
  act: choice(
    'surface',
    'step',
    'act',
    'What becomes of a particle that meets it: it bounces off, slides along, sticks and rides, dies, or is kept on it.',
    ['bounce', 'slide', 'stick', 'die', 'keep'],
    'bounce',
    {
      otherWords: ['collision response', 'on collision'],
      words: { bounce: 'bounce', slide: 'slide along', stick: 'stick', die: 'die', keep: 'are kept' },
      choiceOtherWords: { die: ['kill on collision'], stick: ['stick to surface'], keep: ['stay on the surface'] },
    },
  ),
  bounce: number(
    'surface',
    'step',
    'bounce',
    'Share of the speed toward the surface with which particles leave it.',
    {
      otherWords: ['restitution', 'bounciness', 'elasticity'],
      unit: '%',
      least: 0,
      most: 100,
      byDefault: 50,
      bases: SPREAD,
      reads: LIFE,
    },
  ),
  friction: number(
    'surface',
    'step',
    'friction',
    'Speed along the surface lost, as a share of the speed taken up by it.',
    { otherWords: ['surface friction'], unit: '%', least: 0, most: 1000, byDefault: 20, bases: SPREAD, reads: LIFE },
  ),
  roughness: number('surface', 'step', 'roughness', 'How far bounces scatter: 0 like a mirror, 100 any way off it.', {
    otherWords: ['scatter', 'random bounce', 'rough surface'],
    unit: '%',
    least: 0,
    most: 100,
    byDefault: 0,
    bases: SPREAD,
    reads: LIFE,
  }),
  offset: number('surface', 'step', 'distance', 'How far off the surface particles meet it, or are kept.', {
    otherWords: ['collision radius', 'skin offset'],
    unit: 'm',
    least: 0,
    most: 10,
    byDefault: 0,
    reads: STILL,
    refuses: 'topology',
  }),
  side: choice(
    'surface',
    'step',
    'side',
    'From where it is met: from outside, from inside, or from both.',
    ['outside', 'inside', 'both'],
    'outside',
  ),
  share: number('surface', 'step', 'share', 'Share of the particles that meet it, always the same ones.', {
    unit: '%',
    least: 0,
    most: 100,
    byDefault: 100,
    reads: TIMED,
    refuses: 'field',
  }),
  within: number('surface', 'step', 'within', 'How near particles must be to be kept on it.', {
    unit: 'm',
    least: 0,
    most: 100,
    byDefault: 0,
    reads: TIMED,
    refuses: 'field',
    zero: 'any distance',
  }),
} as const;

const extent = (name: string, help: string, byDefault: number, unit: 'm' | '×' = 'm') =>
  number('surface', 'step', name, help, { unit, least: 0, most: 1000, byDefault, reads: TIMED, refuses: 'field' });

/** Every setting of each kind of surface. A mesh's sizes are times its own. */
export const SURFACE_SETTINGS = {
  ground: { ...MEETING },
  sphere: { radius: extent('radius', 'Radius of the sphere.', 0.5), ...MEETING },
  box: {
    wide: extent('width', 'Width of the box.', 1),
    tall: extent('height', 'Height of the box.', 1),
    deep: extent('depth', 'Depth of the box.', 1),
    ...MEETING,
  },
  thing: { ...MEETING },
  mesh: {
    wide: extent('width', 'How many times as wide as it was made.', 1, '×'),
    tall: extent('height', 'How many times as tall as it was made.', 1, '×'),
    deep: extent('depth', 'How many times as deep as it was made.', 1, '×'),
    ...MEETING,
  },
  layer: { ...MEETING },
} as const satisfies Record<string, Record<string, Declaration>>;

export type SurfaceKind = keyof typeof SURFACE_SETTINGS;
export const SURFACE_KINDS = Object.keys(SURFACE_SETTINGS) as SurfaceKind[];
