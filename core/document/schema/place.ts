import * as z from '../../zod/index.ts';
import { collectionSchema, ref, vectorSchema } from '../../settings/index.ts';

/** A place at one moment of the time sheet; from it on the way to the next is eased, straight, or a step. */
export const placeKeySchema = z.strictObject({
  /** Seconds from the time sheet's left end. */
  at: z.number().min(0).max(3600),
  offset: vectorSchema,
  turn: vectorSchema,
  ease: z.enum(['smooth', 'straight', 'step']),
});
export type PlaceKey = z.infer<typeof placeKeySchema>;

/** How far a place is from what it hangs on, and how it is turned (degrees round X, then Y, then Z); with keys, these rule. */
const hung = { offset: vectorSchema, turn: vectorSchema, keys: collectionSchema(placeKeySchema, 64) };

type Hung = Pick<Place, keyof typeof hung>;

/** What hangs on something else hangs on the effect instead, as far from it. */
export const onEffect = ({ offset, turn, keys }: Hung): Place => ({ kind: 'effect', offset, turn, keys });
const hungOn = ref('things', { whenGone: 'stays', without: onEffect });

/** Where something stands: in the effect, in the world, at the feet of a thing on the stage, on one of its bones, or where a dial says. */
export const placeSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('effect'), ...hung }),
  z.strictObject({ kind: z.literal('world'), ...hung }),
  z.strictObject({ kind: z.literal('thing'), thing: hungOn, ...hung }),
  z.strictObject({ kind: z.literal('bone'), thing: hungOn, bone: z.string().max(80), ...hung }),
  /** Where a dial says: from its place in the world, or in the effect, turned by its direction. */
  z.strictObject({
    kind: z.literal('dial'),
    dial: ref('dials', { kinds: ['place', 'direction'], whenGone: 'value', use: 'where it stands' }),
    ...hung,
  }),
]);
export type Place = z.infer<typeof placeSchema>;
