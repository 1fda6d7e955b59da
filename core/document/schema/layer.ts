import * as z from '../../zod/index.ts';
import {
  collectionSchema,
  itemName,
  ref,
  seedSchema,
  settingSchema,
  settingsSchema,
  type NumberSetting,
} from '../../settings/index.ts';
import { CHANNEL_SETTING, LAYER_SETTINGS, LINK_SETTINGS } from '../declarations/index.ts';
import { beginning, ending } from './birth.ts';
import { placeSchema } from './place.ts';
import { sourceSchema } from './source.ts';
import { anyForceSchema } from './force.ts';
import { burstSchema } from './birth.ts';
import { drawnSchema } from './drawn.ts';
import { layerLookSchema } from './look.ts';
import { layerQualitySchema } from './quality.ts';

/** What one layer's particles set off in another: at an event of each, or along its way. */
export const linkSchema = z.strictObject({
  on: z.enum(['birth', 'death', 'hit', 'release', 'along']),
  layer: ref('layers', { whenGone: 'item', lost: 'which was set off' }),
  salt: seedSchema,
  muted: z.boolean(),
  settings: settingsSchema(LINK_SETTINGS),
});
export type Link = z.infer<typeof linkSchema>;

/** Channels an effect has at most. */
export const MOST_CHANNELS = 8;

/** A name under which particles carry a number of their own. */
export const channelSchema = z.strictObject({ name: itemName });
export type Channel = z.infer<typeof channelSchema>;

export const layerSchema = z.strictObject({
  name: itemName,
  drawn: drawnSchema,
  /** Keeps every particle's random draws through renaming, reordering and import. */
  salt: seedSchema,
  parent: ref('groups', { whenGone: 'value' }).nullable(),
  population: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('own') }),
    z.strictObject({
      kind: z.literal('follows'),
      layer: ref('layers', {
        whenGone: () => ({ kind: 'own' }),
        purpose: 'to follow',
        lost: 'which was followed',
      }),
    }),
  ]),
  hidden: z.boolean(),
  solo: z.boolean(),
  locked: z.boolean(),
  source: sourceSchema,
  /** What a launch toward or round something aims at. */
  aim: placeSchema,
  /** The release front that frees its particles; until it has passed them they are held where they were born. */
  front: ref('fronts', { whenGone: 'null' }).nullable(),
  /** When births may happen; without an end they fade out over the closing. */
  births: z.strictObject({ from: beginning, until: ending.nullable() }),
  bursts: collectionSchema(burstSchema),
  forces: collectionSchema(anyForceSchema, 64),
  links: collectionSchema(linkSchema, 64),
  /** What it looks like: steps of its own, or a look that others use too. */
  look: layerLookSchema,
  /** Drawn only where that layer's particles cover the picture. */
  inside: ref('layers', {
    whenGone: 'null',
    isOther: true,
    purpose: 'to be drawn inside of',
    lost: 'inside of which it was drawn',
  }).nullable(),
  /** The switch among the dials by which it is seen; without one it always is. */
  seenBy: ref('dials', { kinds: ['switch'], whenGone: 'null', use: 'whether it is seen' }).nullable(),
  quality: layerQualitySchema,
  /** What its particles carry, by the id of the channel. */
  channels: collectionSchema(
    settingSchema(CHANNEL_SETTING) as z.ZodType<NumberSetting>,
    MOST_CHANNELS,
    ref('channels', { whenGone: 'item' }),
  ),
  settings: settingsSchema(LAYER_SETTINGS),
});
export type Layer = z.infer<typeof layerSchema>;
