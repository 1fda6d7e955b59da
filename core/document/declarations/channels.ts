import { LIFE, number, SPREAD } from '../../settings/index.ts';

/** What a particle carries in one channel. Channels read no channels, so that none can hang on itself. */
export const CHANNEL_SETTING = number(
  'life',
  'dress',
  'channel',
  'A number that each particle carries under this name; other settings may be shaped by it, and links may pass it on.',
  {
    unit: '',
    least: -1000,
    most: 1000,
    byDefault: 1,
    bases: [...SPREAD, 'taken'],
    reads: LIFE.filter((kind) => kind !== 'channel'),
  },
);
