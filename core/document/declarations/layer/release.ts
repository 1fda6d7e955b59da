import { LIFE, number, SPREAD, type Declaration } from '../../../settings/index.ts';

/** What a layer’s particles are while a front holds them. */
export const RELEASE_SETTINGS = {
  'release.heldSize': number(
    'source',
    'dress',
    'held size',
    'Size of particles that are held still, as a share of what they begin with.',
    {
      otherWords: ['size before release'],
      unit: '%',
      least: 0,
      most: 1000,
      byDefault: 100,
      bases: SPREAD,
      reads: LIFE,
    },
  ),
  'release.heldOpacity': number('source', 'dress', 'held opacity', 'How opaque particles are that are held still.', {
    otherWords: ['opacity before release'],
    unit: '%',
    least: 0,
    most: 100,
    byDefault: 100,
    bases: SPREAD,
    reads: LIFE,
  }),
} as const satisfies Record<string, Declaration>;
