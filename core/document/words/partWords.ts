import { listed } from '../../settings/index.ts';
import { TIERS, type Effect, type Layer, type Quality } from '../schema/index.ts';
import { plain } from '../plain.ts';

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

type Words = [id: string, name: string, value: string];
/** What stands on an effect's stage, in words: what names a line, what it is called, and what it says. */
export const stageWords = ({ surround, lights, things, cameras }: Effect['stage']): Words[] => [
  ['surround', 'surround', surround],
  ...listed(lights).map(({ id, item: { name, colour, at, strength, reach } }): Words => [
    `lights.${id}`,
    `light ${name}`,
    `${colour} at ${at.map(plain).join(', ')} m, ${plain(strength)} strong, reaching ${plain(reach)} m`,
  ]),
  ...listed(things).flatMap(({ id, item }): Words[] =>
    item.hidden ? [[`things.${id}.hidden`, item.name, 'hidden']] : [],
  ),
  ...listed(cameras).map(({ id, item: { name, position, target, fieldOfView, follows } }): Words => [
    `cameras.${id}`,
    `camera ${name}`,
    `at ${position.map(plain).join(', ')} m, toward ${target.map(plain).join(', ')} m, ${plain(fieldOfView)}° high${follows ? ', going along' : ''}`,
  ]),
];
