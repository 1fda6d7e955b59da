import type { Combine, NumberSetting, Reads, SettingOfValue, Vector } from './setting.ts';

export type Chapter = 'source' | 'births' | 'motion' | 'life' | 'appearance';

/** When a setting acts. Dress is a function of what a particle already carries: changing it simulates nothing. */
export type Acts = 'birth' | 'step' | 'dress';

interface Common {
  readonly chapter: Chapter | 'force';
  readonly name: string;
  readonly acts: Acts;
  /** What its shapers may read. An empty list: the setting takes no shapers. */
  readonly reads: readonly Reads['kind'][];
  readonly help: string;
}

export interface NumberDeclaration extends Common {
  readonly value: 'number';
  readonly unit: 'm' | 'm/s' | 'm/s²' | '/s' | '/m' | 's' | '°' | '°/s' | '%' | 'count' | '×' | '';
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
  readonly unit: 'm' | '';
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
  'source.radius': number('source', 'birth', 'radius', 'Radius of the ring or the sphere.', {
    unit: 'm',
    least: 0,
    most: 100,
    byDefault: 0.5,
    reads: TIMED,
  }),
  'source.depth': number(
    'source',
    'birth',
    'depth',
    'Share of the shape that is filled: 0 is its edge or surface only, 100 is all of it.',
    { unit: '%', least: 0, most: 100, byDefault: 0 },
  ),
  'source.offset': vector('source', 'birth', 'offset', 'Where the source stands relative to its place.', {
    unit: 'm',
    least: -100,
    most: 100,
    byDefault: [0, 0, 0],
  }),
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
    most: 10_000,
    byDefault: 0,
    whole: true,
  }),
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
    ['outward', 'normal', 'axis'],
    'outward',
  ),
  'motion.axis': vector('motion', 'birth', 'axis', 'The direction of an axis launch.', {
    unit: '',
    least: -1,
    most: 1,
    byDefault: [0, 1, 0],
  }),
  'motion.speed': number('motion', 'birth', 'speed', 'Speed at birth; negative is inward.', {
    unit: 'm/s',
    least: -200,
    most: 200,
    byDefault: 0,
    bases: SPREAD,
    reads: TIMED,
  }),
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
const reach = number('force', 'step', 'reach', 'Distance at which the force has faded to nothing; 0 is no limit.', {
  unit: 'm',
  least: 0,
  most: 1000,
  byDefault: 0,
  reads: TIMED,
  zero: 'any distance',
});

/** Every setting of each kind of force. */
export const FORCE_SETTINGS = {
  gravity: { strength: strength('strength', 'Acceleration downward.', 9.81) },
  drag: {
    strength: number('force', 'step', 'strength', 'Share of the speed lost each second, continuously.', {
      unit: '/s',
      least: 0,
      most: 1000,
      byDefault: 1,
      bases: SPREAD,
      reads: LIFE,
    }),
  },
  attraction: { strength: strength('strength', 'Acceleration toward the place; negative pushes away.', 4), reach },
  vortex: {
    strength: strength('spin', 'Acceleration round the axis.', 4),
    pull: strength('pull', 'Acceleration toward the axis.', 0),
    lift: strength('lift', 'Acceleration along the axis.', 0),
    reach,
    axis: vector('force', 'step', 'axis', 'The axis that is turned round.', {
      unit: '',
      least: -1,
      most: 1,
      byDefault: [0, 1, 0],
    }),
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
  },
} as const satisfies Record<string, Record<string, Declaration>>;

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
