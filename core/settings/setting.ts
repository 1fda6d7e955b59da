import * as z from '../zod/index.ts';
import { collectionSchema } from './collection.ts';
import { isPlainText } from './plainText.ts';
import { ref } from './refs.ts';

/** Large enough for any effect, small enough for single precision to hold what is made of it. */
const finite = z.number().min(-1e6).max(1e6);
export const itemName = z.string().min(1).max(80).refine(isPlainText, 'a name has only characters that can be shown');
export const hexSchema = z.string().regex(/^#[0-9a-f]{6}$/, 'a colour is written #rrggbb in lower case');
/** Numbers that random draws begin with. */
export const seedSchema = z.number().int().min(0).max(0xffffffff);
export const vectorSchema = z.tuple([finite, finite, finite]);
export type Vector = [number, number, number];

/** A colour by value (sRGB) or by the id of a palette entry. */
export const colourSchema = z.union([
  z.strictObject({ hex: hexSchema }),
  z.strictObject({ palette: ref('palette', { whenGone: 'value' }) }),
]);
export type Colour = z.infer<typeof colourSchema>;

/** Where on the age ruler a key stands: a share of life 0..1, seconds after birth, or seconds before death. */
export const keyPlaceSchema = z.strictObject({
  anchor: z.enum(['share', 'afterBirth', 'beforeDeath']),
  value: finite.min(0).max(3600),
});
export type KeyPlace = z.infer<typeof keyPlaceSchema>;

/** A key of a curve; slopes are value per unit of the ruler (a whole life, a second, a metre a second). */
export const keySchema = z.strictObject({
  at: keyPlaceSchema,
  value: finite,
  slopeIn: finite,
  slopeOut: finite,
  /** Its value holds until the next key. */
  held: z.literal(true).optional(),
});
export type Key = z.infer<typeof keySchema>;

export const curveSchema = z.strictObject({ keys: collectionSchema(keySchema, 64) });
export type Curve = z.infer<typeof curveSchema>;

/** A stop of a gradient; how opaque it is multiplies the opacity beside it. */
export const stopSchema = z.strictObject({
  at: keyPlaceSchema,
  colour: colourSchema,
  opacity: finite.min(0).max(1).optional(),
});
export type Stop = z.infer<typeof stopSchema>;

export const mappingSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('curve'), curve: curveSchema }),
  z.strictObject({ kind: z.literal('band'), low: curveSchema, high: curveSchema }),
  z.strictObject({ kind: z.literal('gradient'), stops: collectionSchema(stopSchema, 64) }),
]);
export type Mapping = z.infer<typeof mappingSchema>;

/** What a shaper reads. */
export const readsSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('age') }),
  z.strictObject({ kind: z.literal('effectTime') }),
  z.strictObject({ kind: z.literal('stretchTime') }),
  z.strictObject({ kind: z.literal('speed') }),
  z.strictObject({ kind: z.literal('distance') }),
  /** How fast what the layer is born on goes, m/s. */
  z.strictObject({ kind: z.literal('carrierSpeed') }),
  /** How far a particle is from the aim of its layer, m. */
  z.strictObject({ kind: z.literal('aimDistance') }),
  /** Where along a ribbon, from its head at 0 to its tail at 1. */
  z.strictObject({ kind: z.literal('along') }),
  z.strictObject({ kind: z.literal('channel'), channel: ref('channels', { whenGone: 'value' }) }),
  z.strictObject({ kind: z.literal('dial'), dial: ref('dials', { whenGone: 'value' }) }),
]);
export type Reads = z.infer<typeof readsSchema>;

export const combineSchema = z.enum(['multiply', 'add', 'blend', 'replace']);
export type Combine = z.infer<typeof combineSchema>;

export const shaperSchema = z.strictObject({
  reads: readsSchema,
  mapping: mappingSchema,
  combine: combineSchema,
  /** How far a blend goes, 0..1; the other ways of combining do not read it. */
  amount: finite.min(0).max(1),
  /** What that amount is multiplied by, if it changes. */
  amountBy: z.strictObject({ reads: readsSchema, curve: curveSchema }).optional(),
  /** Which axis of a vector it shapes; all where this is left out. */
  axis: z.enum(['x', 'y', 'z']).optional(),
  muted: z.boolean(),
});
export type Shaper = z.infer<typeof shaperSchema>;

const shapers = collectionSchema(shaperSchema, 16);
const takenSchema = z.strictObject({ kind: z.literal('taken'), from: z.enum(['source', 'parent']) });

/** Several values to draw one of, each as likely as its weight among all. */
const setOf = <T extends z.ZodType>(value: T) =>
  z.strictObject({
    kind: z.literal('set'),
    values: z
      .array(z.strictObject({ value, weight: finite.min(0) }))
      .min(1)
      .max(16),
  });

/** What a number takes from where its particle is born: of a mesh its UV and its brightness there, of a blow its strength (0 to 1). */
export const GIVEN = ['u', 'v', 'brightness', 'strength'] as const;
export type Given = (typeof GIVEN)[number];

const numberBase = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('fixed'), value: finite }),
  z.strictObject({ kind: z.literal('spread'), low: finite, high: finite }),
  setOf(finite),
  z.strictObject({ kind: z.literal('measure'), measure: ref('measures', { whenGone: 'value' }) }),
  z.strictObject({ kind: z.literal('taken'), from: z.enum(GIVEN) }),
]);
const vectorBase = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('fixed'), value: vectorSchema }),
  z.strictObject({ kind: z.literal('spread'), low: vectorSchema, high: vectorSchema }),
]);
const colourBase = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('fixed'), value: colourSchema }),
  /** Anywhere between two colours, on the straight way of an even eye (OKLab). */
  z.strictObject({ kind: z.literal('spread'), low: colourSchema, high: colourSchema }),
  setOf(colourSchema),
  takenSchema,
]);

export const numberSettingSchema = z.strictObject({ base: numberBase, shapers, muted: z.boolean() });
export const vectorSettingSchema = z.strictObject({ base: vectorBase, shapers, muted: z.boolean() });
export const colourSettingSchema = z.strictObject({ base: colourBase, shapers, muted: z.boolean() });
export const choiceSettingSchema = z.strictObject({
  base: z.strictObject({ kind: z.literal('fixed'), value: z.string() }),
  shapers,
  muted: z.boolean(),
});
export const switchSettingSchema = z.strictObject({
  base: z.strictObject({ kind: z.literal('fixed'), value: z.boolean() }),
  shapers,
  muted: z.boolean(),
});

export type NumberSetting = z.infer<typeof numberSettingSchema>;
export type VectorSetting = z.infer<typeof vectorSettingSchema>;
export type ColourSetting = z.infer<typeof colourSettingSchema>;
export type ChoiceSetting = z.infer<typeof choiceSettingSchema>;
export type SwitchSetting = z.infer<typeof switchSettingSchema>;
export type Setting = NumberSetting | VectorSetting | ColourSetting | ChoiceSetting | SwitchSetting;

export interface SettingOfValue {
  number: NumberSetting;
  vector: VectorSetting;
  colour: ColourSetting;
  choice: ChoiceSetting;
  switch: SwitchSetting;
}
