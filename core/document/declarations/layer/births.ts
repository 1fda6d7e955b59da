import { NONE, number, SPREAD, type Declaration } from '../../../settings/index.ts';

/** When and how many of a layer are born, and how long they live. */
export const BIRTHS_SETTINGS = {
  'births.rate': number('births', 'birth', 'rate', 'Births a second.', {
    otherWords: [
      'spawn rate',
      'emission',
      'emission rate',
      'birth rate',
      'particles per second',
      'spawn',
      'emit',
      'per second',
    ],
    unit: '/s',
    least: 0,
    most: 1_000_000,
    byDefault: 0,
    // Births are counted along the whole sheet, not stretch by stretch.
    reads: ['effectTime', 'dial'],
  }),
  'births.perMetre': number('births', 'birth', 'per metre', 'Births for every metre the source travels.', {
    otherWords: ['particles by distance', 'spawn by distance', 'particles per metre'],
    unit: '/m',
    least: 0,
    most: 10_000,
    byDefault: 0,
    reads: NONE,
  }),
  'births.standing': number('births', 'birth', 'standing', 'Particles that live as long as the effect does.', {
    otherWords: ['constant count', 'persistent', 'single particle', 'resident', 'always one'],
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
    { otherWords: ['density', 'per square metre'], unit: '/m²', least: 0, most: 1_000_000, byDefault: 0 },
  ),
  'births.life': number('births', 'birth', 'lifetime', 'How long each particle lives.', {
    otherWords: ['lifespan', 'life', 'duration', 'time to live', 'particle life', 'lives'],
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
    {
      otherWords: ['max particles', 'particle limit', 'maximum count', 'capacity'],
      unit: 'count',
      least: 1,
      most: 1_000_000,
      byDefault: 10_000,
      whole: true,
    },
  ),
} as const satisfies Record<string, Declaration>;
