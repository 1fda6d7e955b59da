import type { Combine, NumberSetting, Reads, SettingOfValue, Vector } from './setting.ts';

export type Chapter = 'source' | 'births' | 'motion' | 'life' | 'appearance';

/** When a setting acts. Dress is a function of what a particle already carries: changing it simulates nothing. */
export type Acts = 'birth' | 'step' | 'dress';

interface Common {
  readonly chapter: Chapter | 'force' | 'surface' | 'links' | 'front' | 'ribbon';
  readonly name: string;
  readonly acts: Acts;
  /** What its shapers may read. An empty list: the setting takes no shapers. */
  readonly reads: readonly Reads['kind'][];
  readonly help: string;
}

export interface NumberDeclaration extends Common {
  readonly value: 'number';
  readonly unit: 'm' | 'm/s' | 'm/s²' | '/s' | '/m' | '/m²' | 's' | '°' | '°/s' | '%' | 'count' | '×' | '';
  readonly least: number;
  readonly most: number;
  readonly byDefault: number | readonly [low: number, high: number];
  readonly bases: readonly NumberSetting['base']['kind'][];
  readonly whole?: boolean;
  /** What 0 means, where it is not simply none. */
  readonly zero?: string;
}
export interface VectorDeclaration extends Common {
  readonly value: 'vector';
  readonly unit: 'm' | 'm/s' | '';
  readonly least: number;
  readonly most: number;
  readonly byDefault: Vector;
}
export interface ColourDeclaration extends Common {
  readonly value: 'colour';
  readonly byDefault: string;
}
export interface ChoiceDeclaration extends Common {
  readonly value: 'choice';
  readonly choices: readonly string[];
  readonly byDefault: string;
}
export interface SwitchDeclaration extends Common {
  readonly value: 'switch';
  readonly byDefault: boolean;
}
export type Declaration =
  NumberDeclaration | VectorDeclaration | ColourDeclaration | ChoiceDeclaration | SwitchDeclaration;

const LIFE = ['age', 'effectTime', 'speed', 'dial'] as const;
const TIMED = ['effectTime', 'dial'] as const;
const NONE = [] as const;

type Rest<T extends Declaration> = Omit<T, 'value' | 'chapter' | 'name' | 'acts' | 'help' | 'reads'> & {
  reads?: T['reads'];
};

const number = (
  chapter: Common['chapter'],
  acts: Acts,
  name: string,
  help: string,
  rest: Omit<Rest<NumberDeclaration>, 'bases'> & { bases?: NumberDeclaration['bases'] },
): NumberDeclaration => ({
  value: 'number',
  chapter,
  acts,
  name,
  help,
  reads: NONE,
  bases: ['fixed', 'measure'],
  ...rest,
});
const vector = (
  chapter: Common['chapter'],
  acts: Acts,
  name: string,
  help: string,
  rest: Rest<VectorDeclaration>,
): VectorDeclaration => ({
  value: 'vector',
  chapter,
  acts,
  name,
  help,
  reads: NONE,
  ...rest,
});
const choice = (
  chapter: Common['chapter'],
  acts: Acts,
  name: string,
  help: string,
  choices: readonly string[],
  byDefault: string,
): ChoiceDeclaration => ({
  value: 'choice',
  chapter,
  acts,
  name,
  help,
  reads: NONE,
  choices,
  byDefault,
});

const SPREAD = ['fixed', 'spread', 'measure'] as const;

/** Every setting a layer has. Editor, evaluator, invalidation, checks and docs read this table. */
export const LAYER_SETTINGS = {
  'source.radius': number('source', 'birth', 'radius', 'Radius of the ring, disc, sphere, cylinder or cone.', {
    unit: 'm',
    least: 0,
    most: 100,
    byDefault: 0.5,
    reads: TIMED,
  }),
  'source.length': number('source', 'birth', 'length', 'Length of the line, cylinder or cone along its own Y.', {
    unit: 'm',
    least: 0,
    most: 100,
    byDefault: 1,
    reads: TIMED,
  }),
  'source.size': vector('source', 'birth', 'size', 'Width, height and depth of the box; flat where one is 0.', {
    unit: 'm',
    least: 0,
    most: 100,
    byDefault: [1, 1, 1],
  }),
  'source.thickness': number('source', 'birth', 'thickness', 'How thick the ring is round; 0 is a bare circle.', {
    unit: 'm',
    least: 0,
    most: 100,
    byDefault: 0,
    reads: TIMED,
  }),
  'source.arc': number('source', 'birth', 'part of the turn', 'How much of the full turn round its own Y is used.', {
    unit: '°',
    least: 0,
    most: 360,
    byDefault: 360,
    reads: TIMED,
  }),
  'source.rise': number('source', 'birth', 'part of the sphere', 'How far from the top it reaches: 90 is a dome.', {
    unit: '°',
    least: 0,
    most: 180,
    byDefault: 180,
    reads: TIMED,
  }),
  'source.angle': number('source', 'birth', 'angle', 'How far the sides of the cone lean outward; 0 is parallel.', {
    unit: '°',
    least: 0,
    most: 89,
    byDefault: 25,
    reads: TIMED,
  }),
  'source.stretch': vector('source', 'birth', 'stretch', 'How much larger the shape is along its own axes.', {
    unit: '',
    least: 0,
    most: 100,
    byDefault: [1, 1, 1],
  }),
  'source.ring': number(
    'source',
    'birth',
    'ring',
    'Radius of a ring about each particle that bears; its age is theirs.',
    {
      unit: 'm',
      least: 0,
      most: 100,
      byDefault: 0,
      zero: 'no ring',
      reads: ['age', 'effectTime', 'dial'],
    },
  ),
  'source.ragged': number('source', 'birth', 'raggedness', 'How far noise pushes the ring to and fro.', {
    unit: 'm',
    least: 0,
    most: 10,
    byDefault: 0,
    zero: 'nothing',
  }),
  'source.rags': number('source', 'birth', 'size of the rags', 'How wide one rag of the ring is.', {
    unit: 'm',
    least: 0.005,
    most: 10,
    byDefault: 0.15,
  }),
  'source.stir': number('source', 'birth', 'stir', 'How fast the rags change.', {
    unit: '/s',
    least: 0,
    most: 60,
    byDefault: 1,
  }),
  'source.perHit': number('source', 'birth', 'births a hit', 'How many are born of a hit of full strength.', {
    unit: 'count',
    least: 0,
    most: 100_000,
    byDefault: 1,
    bases: SPREAD,
  }),
  'source.region': choice(
    'source',
    'birth',
    'region',
    'Which part of the shape or the mesh bears particles.',
    ['surface', 'edge', 'volume', 'vertices'],
    'surface',
  ),
  'source.depth': number('source', 'birth', 'depth', 'Share of the volume that is used, from its surface inward.', {
    unit: '%',
    least: 0,
    most: 100,
    byDefault: 100,
  }),
  'source.order': choice(
    'source',
    'birth',
    'order',
    'Births in random places, evenly spread, or walking along in order.',
    ['random', 'even', 'walking'],
    'random',
  ),
  'source.walk': number('source', 'birth', 'births a walk', 'How many births a walk along the whole source takes.', {
    unit: 'count',
    least: 1,
    most: 100_000,
    byDefault: 24,
    whole: true,
  }),
  'source.along': choice(
    'source',
    'birth',
    'where on the bones',
    'At the joints, along each bone, or on the straight line between two joints.',
    ['joints', 'along', 'between'],
    'joints',
  ),
  'source.ground': {
    value: 'switch',
    chapter: 'source',
    acts: 'birth',
    name: 'dropped to the ground',
    help: 'Births happen on the ground under the source.',
    reads: NONE,
    byDefault: false,
  },
  'source.below': number(
    'source',
    'birth',
    'acts below',
    'Births only while the source is lower than this; 0 is always.',
    { unit: 'm', least: 0, most: 100, byDefault: 0, zero: 'any height' },
  ),

  'births.rate': number('births', 'birth', 'rate', 'Births a second.', {
    unit: '/s',
    least: 0,
    most: 1_000_000,
    byDefault: 0,
    reads: TIMED,
  }),
  'births.perMetre': number('births', 'birth', 'per metre', 'Births for every metre the source travels.', {
    unit: '/m',
    least: 0,
    most: 10_000,
    byDefault: 0,
    reads: NONE,
  }),
  'births.standing': number('births', 'birth', 'standing', 'Particles that live as long as the effect does.', {
    unit: 'count',
    least: 0,
    most: 100_000,
    byDefault: 0,
    whole: true,
  }),
  'births.perArea': number(
    'births',
    'birth',
    'standing per square metre',
    'Standing particles for every square metre of the mesh.',
    { unit: '/m²', least: 0, most: 1_000_000, byDefault: 0 },
  ),
  'births.life': number('births', 'birth', 'lifetime', 'How long each particle lives.', {
    unit: 's',
    least: 0.02,
    most: 600,
    byDefault: 1,
    bases: SPREAD,
  }),
  'births.cap': number(
    'births',
    'birth',
    'cap',
    'Most particles of this layer living at once; births beyond it are refused and counted.',
    { unit: 'count', least: 1, most: 1_000_000, byDefault: 10_000, whole: true },
  ),

  'motion.launch': choice(
    'motion',
    'birth',
    'launch',
    'The direction particles leave in.',
    ['outward', 'normal', 'tangent', 'within', 'axis', 'toward', 'round', 'any'],
    'outward',
  ),
  'motion.axis': vector('motion', 'birth', 'axis', 'The direction of an axis launch.', {
    unit: '',
    least: -1,
    most: 1,
    byDefault: [0, 1, 0],
  }),
  'motion.angle': number(
    'motion',
    'birth',
    'angle of the tangent',
    'How far a tangent launch turns in the surface.',
    {
      unit: '°',
      least: -360,
      most: 360,
      byDefault: 0,
      bases: SPREAD,
    },
  ),
  'motion.speed': number('motion', 'birth', 'speed', 'Speed at birth; negative is inward.', {
    unit: 'm/s',
    least: -200,
    most: 200,
    byDefault: 0,
    bases: SPREAD,
    reads: TIMED,
  }),
  'motion.velocity': vector(
    'motion',
    'birth',
    'velocity beside',
    'Velocity added at birth, along the axes of the place.',
    {
      unit: 'm/s',
      least: -200,
      most: 200,
      byDefault: [0, 0, 0],
    },
  ),
  'motion.opening': number(
    'motion',
    'birth',
    'opening angle',
    'How far from the launch direction particles may leave.',
    { unit: '°', least: 0, most: 180, byDefault: 0 },
  ),
  'motion.inherit': number(
    'motion',
    'birth',
    'kept speed',
    "Share of the source's own velocity that particles leave with.",
    { unit: '%', least: -200, most: 200, byDefault: 0 },
  ),
  'motion.ride': number(
    'motion',
    'step',
    'ride',
    'How far particles go with what they were born on: 100 rides along, 0 stays in the world.',
    { unit: '%', least: 0, most: 100, byDefault: 0 },
  ),

  'release.heldSize': number(
    'source',
    'dress',
    'held size',
    'Size of particles that are held still, as a share of what they begin with.',
    { unit: '%', least: 0, most: 1000, byDefault: 100 },
  ),
  'release.heldOpacity': number('source', 'dress', 'held opacity', 'How opaque particles are that are held still.', {
    unit: '%',
    least: 0,
    most: 100,
    byDefault: 100,
  }),

  'life.size': number('life', 'dress', 'size', 'Diameter of a particle.', {
    unit: 'm',
    least: 0,
    most: 100,
    byDefault: 0.05,
    bases: SPREAD,
    reads: LIFE,
  }),
  'life.opacity': number('life', 'dress', 'opacity', 'How opaque a particle is.', {
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
    byDefault: '#ffffff',
  },
  'life.intensity': number('life', 'dress', 'intensity', 'Brightness of the colour; above 1 glows.', {
    unit: '×',
    least: 0,
    most: 100,
    byDefault: 1,
    bases: SPREAD,
    reads: LIFE,
  }),
  'life.angle': number('life', 'dress', 'starting angle', 'Angle of the sprite at birth.', {
    unit: '°',
    least: -360,
    most: 360,
    byDefault: 0,
    bases: SPREAD,
  }),
  'life.turning': number('life', 'dress', 'turning', 'How fast the sprite turns.', {
    unit: '°/s',
    least: -3600,
    most: 3600,
    byDefault: 0,
    bases: SPREAD,
    reads: ['age', 'dial'],
  }),

  'appearance.facing': choice('appearance', 'dress', 'facing', 'How sprites stand.', ['camera', 'ground'], 'camera'),
  'appearance.blend': choice(
    'appearance',
    'dress',
    'blending',
    'How sprites mix with what is behind.',
    ['additive', 'normal'],
    'additive',
  ),
  'appearance.shape': choice(
    'appearance',
    'dress',
    'picture',
    'The drawn shape of a sprite.',
    ['soft dot', 'ring', 'flare', 'disc'],
    'soft dot',
  ),
} as const satisfies Record<string, Declaration>;

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
    ...PUSH,
  },
  vortex: {
    strength: strength('spin', 'Acceleration round the axis.', 4),
    pull: strength('pull', 'Acceleration toward the axis.', 0),
    lift: strength('lift', 'Acceleration along the axis.', 0),
    axis: axis('The axis that is turned round.', [0, 1, 0]),
    ...PUSH,
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
    ...PUSH,
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

/** What a surface does to what it meets: what every kind of surface has. */
const MEETING = {
  act: choice(
    'surface',
    'step',
    'act',
    'What becomes of a particle that meets it: it bounces off, slides along, sticks and rides, dies, or is kept on it.',
    ['bounce', 'slide', 'stick', 'die', 'keep'],
    'bounce',
  ),
  bounce: number(
    'surface',
    'step',
    'bounce',
    'Share of the speed toward the surface with which particles leave it.',
    {
      unit: '%',
      least: 0,
      most: 100,
      byDefault: 50,
      bases: SPREAD,
    },
  ),
  friction: number(
    'surface',
    'step',
    'friction',
    'Speed along the surface lost, as a share of the speed taken up by it.',
    { unit: '%', least: 0, most: 1000, byDefault: 20, bases: SPREAD },
  ),
  offset: number('surface', 'step', 'distance', 'How far off the surface particles meet it, or are kept.', {
    unit: 'm',
    least: 0,
    most: 10,
    byDefault: 0,
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
  }),
  within: number('surface', 'step', 'within', 'How near particles must be to be kept on it.', {
    unit: 'm',
    least: 0,
    most: 100,
    byDefault: 0,
    zero: 'any distance',
  }),
} as const;

const extent = (name: string, help: string, byDefault: number, unit: 'm' | '×' = 'm') =>
  number('surface', 'step', name, help, { unit, least: 0, most: 1000, byDefault, reads: TIMED });

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
} as const satisfies Record<string, Record<string, Declaration>>;

/** A border that frees held particles as it passes them. */
export const FRONT_SETTINGS = {
  border: number('front', 'step', 'border', 'How far the border has come: all within it is free.', {
    unit: 'm',
    least: -100,
    most: 100,
    byDefault: 2,
    reads: TIMED,
  }),
  noise: number('front', 'step', 'raggedness', 'How far noise pushes the border to and fro.', {
    unit: 'm',
    least: 0,
    most: 10,
    byDefault: 0.05,
  }),
  noiseSize: number('front', 'step', 'size of the rags', 'How wide one rag of the border is.', {
    unit: 'm',
    least: 0.005,
    most: 10,
    byDefault: 0.15,
  }),
  size: vector('front', 'step', 'size', 'Width, height and depth of the box at a border of 0.', {
    unit: 'm',
    least: 0,
    most: 100,
    byDefault: [0, 0, 0],
  }),
} as const satisfies Record<string, Declaration>;

const AT_HEAD = number('ribbon', 'dress', 'width at the head', 'Width at the newest end, as a share of the size.', {
  unit: '%',
  least: 0,
  most: 1000,
  byDefault: 100,
});
const AT_TAIL = number('ribbon', 'dress', 'width at the tail', 'Width at the oldest end, as a share of the size.', {
  unit: '%',
  least: 0,
  most: 1000,
  byDefault: 0,
});

/** Ribbons: what is laid behind, strung through or drawn between. Their width is the layer's size. */
export const RIBBON_SETTINGS = {
  /** Behind each particle, on the way it has come. */
  trail: {
    every: number('ribbon', 'step', 'point every', 'Metres between the points that a particle lays behind it.', {
      unit: 'm',
      least: 0.002,
      most: 100,
      byDefault: 0.06,
    }),
    seconds: number('ribbon', 'step', 'or every', 'Seconds between two points at most; none by time at 0.', {
      unit: 's',
      least: 0,
      most: 10,
      byDefault: 0,
      zero: 'not at all',
    }),
    lasts: number('ribbon', 'step', 'lasts', 'How long a laid point stays.', {
      unit: 's',
      least: 0.02,
      most: 60,
      byDefault: 0.6,
    }),
    drift: number('ribbon', 'step', 'drift', 'Share of its particle’s velocity that a point keeps when it is laid.', {
      unit: '%',
      least: -100,
      most: 100,
      byDefault: 0,
    }),
    feels: {
      value: 'switch',
      chapter: 'ribbon',
      acts: 'step',
      name: 'feels forces',
      help: 'Whether laid points feel the forces that their particles feel.',
      reads: NONE,
      byDefault: false,
    },
    ends: choice(
      'ribbon',
      'step',
      'when its particle dies',
      'Whether a trail stays until it has faded, or goes with its particle.',
      ['stays', 'goes too'],
      'stays',
    ),
    most: number('ribbon', 'step', 'most points', 'Most points that may lie at once; more are refused.', {
      unit: 'count',
      least: 16,
      most: 200_000,
      byDefault: 20_000,
    }),
    atHead: AT_HEAD,
    atTail: AT_TAIL,
  },
  /** Through the particles, in the order of their births. */
  strand: {
    strands: number('ribbon', 'dress', 'strands', 'Particles are strung on so many, each in turn.', {
      unit: 'count',
      least: 1,
      most: 1000,
      byDefault: 1,
    }),
    longest: number(
      'ribbon',
      'dress',
      'longest gap',
      'A strand is cut where two neighbours are further apart; never at 0.',
      {
        unit: 'm',
        least: 0,
        most: 1000,
        byDefault: 0,
        zero: 'any length',
      },
    ),
    atHead: AT_HEAD,
    atTail: { ...AT_TAIL, byDefault: 100 },
  },
  /** Between two points of a weapon as it swings, while a particle lives. */
  blade: {
    lasts: number('ribbon', 'dress', 'lasts', 'How long what it has passed over stays.', {
      unit: 's',
      least: 0.01,
      most: 10,
      byDefault: 0.25,
    }),
    atHead: AT_HEAD,
    atTail: { ...AT_TAIL, byDefault: 100 },
  },
  /** From one place to another, while a particle lives. */
  beam: {
    sag: number('ribbon', 'dress', 'sag', 'How far its middle hangs down; below 0 it rises.', {
      unit: 'm',
      least: -100,
      most: 100,
      byDefault: 0,
    }),
    jag: number('ribbon', 'dress', 'jaggedness', 'How far it is thrown aside on its way.', {
      unit: 'm',
      least: 0,
      most: 10,
      byDefault: 0.12,
    }),
    jagSize: number('ribbon', 'dress', 'size of the jags', 'How far apart the jags are.', {
      unit: 'm',
      least: 0.02,
      most: 10,
      byDefault: 0.25,
    }),
    strikes: number('ribbon', 'dress', 'strikes anew', 'How often it takes another way; never at 0.', {
      unit: '/s',
      least: 0,
      most: 60,
      byDefault: 0,
      zero: 'never',
    }),
    branches: number('ribbon', 'dress', 'branches', 'How many leave it on the way.', {
      unit: 'count',
      least: 0,
      most: 32,
      byDefault: 0,
      zero: 'no branches',
    }),
    branchLength: number('ribbon', 'dress', 'length of branches', 'How long a branch is at most.', {
      unit: 'm',
      least: 0,
      most: 100,
      byDefault: 0.5,
    }),
    speed: number('ribbon', 'birth', 'speed', 'How fast it reaches out from its birth; at once at 0.', {
      unit: 'm/s',
      least: 0,
      most: 10_000,
      byDefault: 0,
      zero: 'once, all the way',
    }),
    atHead: AT_HEAD,
    atTail: { ...AT_TAIL, byDefault: 100 },
  },
} as const satisfies Record<string, Record<string, Declaration>>;

/** What a link sets off, and what it passes on. */
export const LINK_SETTINGS = {
  count: number('links', 'birth', 'how many', 'How many are born each time.', {
    unit: 'count',
    least: 0,
    most: 10_000,
    byDefault: 5,
    bases: SPREAD,
    whole: true,
  }),
  chance: number('links', 'birth', 'chance', 'How likely it is each time.', {
    unit: '%',
    least: 0,
    most: 100,
    byDefault: 100,
  }),
  delay: number('links', 'birth', 'delay', 'How long after it they are born.', {
    unit: 's',
    least: 0,
    most: 60,
    byDefault: 0,
    bases: SPREAD,
  }),
  every: number('links', 'birth', 'every', 'How often along the way, by a clock of each particle’s own.', {
    unit: 's',
    least: 0.005,
    most: 60,
    byDefault: 0.1,
    bases: SPREAD,
  }),
  times: number('links', 'birth', 'times', 'How often at most along the way.', {
    unit: 'count',
    least: 0,
    most: 10_000,
    byDefault: 0,
    whole: true,
    zero: 'as long as it lives',
  }),
  once: {
    value: 'switch',
    chapter: 'links',
    acts: 'birth',
    name: 'only its first',
    help: 'Whether only the first hit of each particle counts.',
    reads: NONE,
    byDefault: false,
  },
  velocity: number('links', 'birth', 'passed speed', 'Share of its velocity that is passed on.', {
    unit: '%',
    least: -200,
    most: 200,
    byDefault: 0,
    bases: SPREAD,
  }),
  colour: number('links', 'birth', 'passed colour', 'How far they begin with its colour rather than their own.', {
    unit: '%',
    least: 0,
    most: 100,
    byDefault: 0,
  }),
  size: number('links', 'birth', 'passed size', 'How far they begin with its size rather than their own.', {
    unit: '%',
    least: 0,
    most: 100,
    byDefault: 0,
  }),
} as const satisfies Record<string, Declaration>;

export type SurfaceKind = keyof typeof SURFACE_SETTINGS;
export const SURFACE_KINDS = Object.keys(SURFACE_SETTINGS) as SurfaceKind[];

export type ForceKind = keyof typeof FORCE_SETTINGS;
export const FORCE_KINDS = Object.keys(FORCE_SETTINGS) as ForceKind[];

export type SettingsOf<T extends Record<string, Declaration>> = { [K in keyof T]: SettingOfValue[T[K]['value']] };
export type LayerSettings = SettingsOf<typeof LAYER_SETTINGS>;
export type LayerSettingName = keyof LayerSettings;

/** The ways a shaper may combine with a setting of a value type. */
export const COMBINES: Record<Declaration['value'], readonly Combine[]> = {
  number: ['multiply', 'add', 'blend', 'replace'],
  colour: ['multiply', 'blend', 'replace'],
  vector: [],
  choice: [],
  switch: [],
};
