import * as z from '../../zod/index.ts';
import { asset, itemName, ref, settingsSchema } from '../../settings/index.ts';
import { FRONT_SETTINGS, SURFACE_SETTINGS } from '../declarations/index.ts';
import { placeSchema } from './place.ts';

const surfaceCommon = {
  muted: z.boolean(),
  /** Layers whose particles meet it; an empty list is every layer. */
  layers: z.array(ref('layers', { whenGone: 'entry', purpose: 'to be met by' })).max(128),
};
/** Something particles can hit or keep to. A thing is met as it stands and moves on the stage, a mesh where it is placed. */
export const surfaceSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('ground'),
    place: placeSchema,
    ...surfaceCommon,
    settings: settingsSchema(SURFACE_SETTINGS.ground),
  }),
  z.strictObject({
    kind: z.literal('sphere'),
    place: placeSchema,
    ...surfaceCommon,
    settings: settingsSchema(SURFACE_SETTINGS.sphere),
  }),
  z.strictObject({
    kind: z.literal('box'),
    place: placeSchema,
    ...surfaceCommon,
    settings: settingsSchema(SURFACE_SETTINGS.box),
  }),
  z.strictObject({
    kind: z.literal('thing'),
    thing: ref('things', { whenGone: 'stays' }),
    ...surfaceCommon,
    settings: settingsSchema(SURFACE_SETTINGS.thing),
  }),
  z.strictObject({
    kind: z.literal('mesh'),
    place: placeSchema,
    asset: asset('mesh'),
    name: itemName,
    ...surfaceCommon,
    settings: settingsSchema(SURFACE_SETTINGS.mesh),
  }),
  /** The mesh that the first particle of a standing layer is drawn as, in the shape it has. */
  z.strictObject({
    kind: z.literal('layer'),
    layer: ref('layers', { whenGone: 'item', purpose: 'whose mesh is met' }),
    ...surfaceCommon,
    settings: settingsSchema(SURFACE_SETTINGS.layer),
  }),
]);
export type Surface = z.infer<typeof surfaceSchema>;

/** A release front: a border that grows from a sphere or a box, or travels along its place's Y as a plane. */
export const frontSchema = z.strictObject({
  name: itemName,
  kind: z.enum(['sphere', 'box', 'plane']),
  place: placeSchema,
  settings: settingsSchema(FRONT_SETTINGS),
});
export type Front = z.infer<typeof frontSchema>;
