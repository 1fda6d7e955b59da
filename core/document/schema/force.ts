import * as z from '../../zod/index.ts';
import { ref, settingsSchema } from '../../settings/index.ts';
import { FORCE_KINDS, FORCE_SETTINGS, type ForceKind } from '../declarations/index.ts';
import { placeSchema } from './place.ts';

function forceSchema<K extends ForceKind>(kind: K) {
  return z.strictObject({
    kind: z.literal(kind),
    muted: z.boolean(),
    place: placeSchema,
    settings: settingsSchema(FORCE_SETTINGS[kind]),
  });
}
type ForceSchema = { [K in ForceKind]: ReturnType<typeof forceSchema<K>> }[ForceKind];
const [first, ...others] = FORCE_KINDS.map((kind) => forceSchema(kind) as ForceSchema);
export const anyForceSchema = z.discriminatedUnion('kind', [first!, ...others]);
export type Force = z.infer<typeof anyForceSchema>;

/** A force of the effect's own: it acts on some layers, or with an empty list on all of them. */
export const sharedForceSchema = z.strictObject({
  force: anyForceSchema,
  layers: z.array(ref('layers', { whenGone: 'entry', purpose: 'to act on' })).max(128),
});
export type SharedForce = z.infer<typeof sharedForceSchema>;
