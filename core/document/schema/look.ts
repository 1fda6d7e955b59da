import * as z from '../../zod/index.ts';
import {
  asset,
  collectionSchema,
  idSchema,
  itemName,
  numberSettingSchema,
  ref,
  settingsSchema,
  stopSchema,
} from '../../settings/index.ts';
import { tierName } from './quality.ts';
import { STEP_SETTINGS, type StepKind } from '../declarations/index.ts';

/** A picture that was brought in: the hash of its canonical pixels, and the name its file had. */
export interface PictureRef {
  asset: string;
  name: string;
}

const stepOf = <K extends StepKind>(kind: K) => ({
  kind: z.literal(kind),
  muted: z.boolean(),
  /** The lowest quality tier that has it. */
  least: tierName,
  settings: settingsSchema(STEP_SETTINGS[kind]),
});
const pictureOf = z.strictObject({ asset: asset('picture', 'look, picture'), name: itemName });
/** One step of a look. A picture step without a picture shows nothing of its own. */
export const stepSchema = z.discriminatedUnion('kind', [
  z.strictObject({ ...stepOf('picture'), picture: pictureOf.nullable() }),
  z.strictObject(stepOf('drawn')),
  z.strictObject(stepOf('levels')),
  z.strictObject(stepOf('contrast')),
  z.strictObject(stepOf('scroll')),
  z.strictObject(stepOf('warp')),
  z.strictObject({ ...stepOf('dissolve'), picture: pictureOf.nullable() }),
  z.strictObject(stepOf('rim')),
  z.strictObject({ ...stepOf('gradient'), stops: collectionSchema(stopSchema, 64) }),
  z.strictObject(stepOf('tint')),
  z.strictObject(stepOf('intensity')),
  z.strictObject(stepOf('soft')),
]);
export type Step = z.infer<typeof stepSchema>;

/** Steps a look has at most: each costs something for every pixel. */
export const MOST_STEPS = 16;
const stepsSchema = collectionSchema(stepSchema, MOST_STEPS);

/** A look with a name, which many layers may use. */
export const lookSchema = z.strictObject({ name: itemName, steps: stepsSchema });
export type Look = z.infer<typeof lookSchema>;

/** What a layer looks like: steps of its own, or a named look but for some numbers, by the id of their step and their name. */
export const layerLookSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('own'), steps: stepsSchema }),
  z.strictObject({
    kind: z.literal('named'),
    look: ref('looks', { whenGone: 'stays' }),
    changes: z.record(idSchema, z.record(z.string().max(40), numberSettingSchema)),
  }),
]);
export type LayerLook = z.infer<typeof layerLookSchema>;
