import * as z from '../../zod/index.ts';
import {
  collectionSchema,
  itemName,
  paletteEntrySchema,
  ref,
  seedSchema,
  vectorSchema,
} from '../../settings/index.ts';
import { sharedForceSchema } from './force.ts';
import { frontSchema, surfaceSchema } from './surface.ts';
import { lookSchema } from './look.ts';
import { channelSchema, layerSchema, MOST_CHANNELS } from './layer.ts';
import { dialSchema, measureSchema, signalSchema, stretchesSchema } from './dial.ts';
import { qualitySchema } from './quality.ts';
import { stageSchema } from './stage.ts';
import { SCHEMA } from './version.ts';

const grouped = {
  name: itemName,
  parent: ref('groups', { whenGone: 'value' }).nullable(),
  translation: vectorSchema,
  /** Degrees round X, then Y, then Z. */
  rotation: vectorSchema,
  scale: z.number().min(0.001).max(1000),
};

const whole = {
  schema: z.literal(SCHEMA),
  name: itemName,
  seed: seedSchema,
  stretches: stretchesSchema,
  palette: collectionSchema(paletteEntrySchema),
  measures: collectionSchema(measureSchema),
  dials: collectionSchema(dialSchema),
  signals: collectionSchema(signalSchema, 32),
  channels: collectionSchema(channelSchema, MOST_CHANNELS),
  layers: collectionSchema(layerSchema, 128),
  forces: collectionSchema(sharedForceSchema, 64),
  surfaces: collectionSchema(surfaceSchema, 32),
  fronts: collectionSchema(frontSchema, 16),
  looks: collectionSchema(lookSchema, 64),
  stage: stageSchema,
  quality: qualitySchema,
};

/** Another effect that stands in a group: as it was when it was saved last, with nothing linked in turn. */
export const linkedSchema = z.strictObject({
  /** The effect it is kept the same as, where that is known. */
  of: z.uuid(),
  effect: z.strictObject({ ...whole, groups: collectionSchema(z.strictObject({ ...grouped, linked: z.null() })) }),
  hidden: z.boolean(),
  /** Whether it is drawn in front of all layers, or behind them. */
  inFront: z.boolean(),
});
export type Linked = z.infer<typeof linkedSchema>;

export const groupSchema = z.strictObject({ ...grouped, linked: linkedSchema.nullable() });
export type Group = z.infer<typeof groupSchema>;

export const effectSchema = z.strictObject({ ...whole, groups: collectionSchema(groupSchema) });
export type Effect = z.infer<typeof effectSchema>;
