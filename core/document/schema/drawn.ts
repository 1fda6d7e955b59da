import * as z from '../../zod/index.ts';
import { asset, collectionSchema, itemName, ref, settingsSchema } from '../../settings/index.ts';
import { DRAWN_SETTINGS, RIBBON_SETTINGS } from '../declarations/index.ts';
import { placeSchema } from './place.ts';

const ribbon = <K extends keyof typeof RIBBON_SETTINGS>(kind: K) => ({
  kind: z.literal(kind),
  settings: settingsSchema(RIBBON_SETTINGS[kind]),
});
const drawnAs = <K extends keyof typeof DRAWN_SETTINGS>(kind: K) => ({
  kind: z.literal(kind),
  settings: settingsSchema(DRAWN_SETTINGS[kind]),
});
/** One of the meshes a layer's particles are drawn as, and how likely it is beside the others. */
export const drawnMeshSchema = z.strictObject({
  asset: asset('mesh', 'what it is drawn as'),
  name: itemName,
  chance: z.number().min(0).max(1000),
});
export type DrawnMesh = z.infer<typeof drawnMeshSchema>;

/** What a layer's particles are drawn as: each by itself, as ribbons, or on the skin of a thing. */
export const drawnSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('sprite') }),
  z.strictObject({
    ...drawnAs('mesh'),
    meshes: collectionSchema(drawnMeshSchema, 16),
    /** Parts of the meshes, by name, that have another look than the rest. */
    parts: z
      .array(
        z.strictObject({
          part: itemName,
          look: ref('looks', {
            whenGone: 'stays',
            purpose: ({ part }: { part: string }) => `for the part "${part}"`,
          }),
        }),
      )
      .max(32),
  }),
  z.strictObject(drawnAs('light')),
  z.strictObject({
    ...drawnAs('haze'),
    picture: z.strictObject({ asset: asset('picture', 'what bends it'), name: itemName }).nullable(),
  }),
  z.strictObject({
    ...drawnAs('body'),
    thing: ref('things', { whenGone: 'stays' }),
    front: ref('fronts', { whenGone: 'null' }).nullable(),
  }),
  z.strictObject(ribbon('trail')),
  z.strictObject(ribbon('strand')),
  z.strictObject({ ...ribbon('blade'), from: placeSchema, to: placeSchema }),
  z.strictObject({ ...ribbon('beam'), from: placeSchema, to: placeSchema }),
]);
export type DrawnAs = z.infer<typeof drawnSchema>;
export type Ribbon = Extract<DrawnAs, { kind: keyof typeof RIBBON_SETTINGS }>;
export const isRibbon = (drawn: DrawnAs): drawn is Ribbon => drawn.kind in RIBBON_SETTINGS;
