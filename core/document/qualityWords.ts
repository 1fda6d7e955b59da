import { listed } from '../settings/index.ts';
import { TIERS, type Layer, type Quality } from './schema/index.ts';
import { plain } from './plain.ts';

/** How an effect is thinned, in words: what names a line, what it is called, and what it says. */
export const qualityWords = ({ tiers, distances }: Quality): [id: string, name: string, value: string][] => [
  ...TIERS.map((tier): [string, string, string] => {
    const { births, keepsArea, lights, joints } = tiers[tier];
    const larger = keepsArea && births < 100 ? ', drawn larger' : '';
    const kept = `${plain(births)}% of births${larger}, ${lights} ${lights === 1 ? 'light' : 'lights'}, ${plain(joints)}% of joints`;
    return [`quality.${tier}`, `${tier} quality`, kept];
  }),
  ...listed(distances).map(({ id, item: { beyond, tier } }): [string, string, string] => [
    `quality.distances.${id}`,
    `beyond ${plain(beyond)} m`,
    tier === 'none' ? 'not seen' : `${tier} quality`,
  ]),
];

const HAVE = { low: [], middle: ['in middle and high quality'], high: ['in high quality only'] } as const;

/** How a layer is thinned, in words, where that is not as by default. */
export const layerQualityWords = ({ quality: { least, thins } }: Layer): string[] => [
  ...HAVE[least],
  ...(thins ? [] : ['all births in every quality']),
];
