import * as z from '../../zod/index.ts';
import { SHAPE_KINDS, type ShapeKind } from '../../simulation/shapes/index.ts';
import { collectionSchema, emptyCollection, ref, vectorSchema } from '../../settings/index.ts';
import { onEffect, placeSchema, type Place } from './place.ts';

const boneNames = z.array(z.string().max(80)).max(256);
const placed = { place: placeSchema };

/** A blow: when, where, with which share of its full strength (percent). The place's Y leads out of what is struck. */
export const hitSchema = z.strictObject({
  stretch: z.enum(['opening', 'hold', 'closing']),
  at: z.number().min(0).max(3600),
  place: placeSchema,
  strength: z.number().min(0).max(1000),
  muted: z.boolean(),
});
export type Hit = z.infer<typeof hitSchema>;

/** Another layer on which particles are born; without it they are born at a point. */
const bearing = (purpose: string, lost: string) =>
  ref('layers', {
    whenGone: () => ({
      kind: 'point',
      place: onEffect({ offset: [0, 1, 0], turn: [0, 0, 0], keys: emptyCollection() }),
    }),
    without: (_: object, { aim }: { readonly aim: Place }) => ({ kind: 'point', place: aim }),
    purpose,
    lost,
  });

const onThing = ref('things', { whenGone: 'stays' });

const shapeSchema = <K extends ShapeKind>(kind: K) => z.strictObject({ kind: z.literal(kind), ...placed });
type ShapeSchema = { [K in ShapeKind]: ReturnType<typeof shapeSchema<K>> }[ShapeKind];
const [firstShape, ...otherShapes] = SHAPE_KINDS.map((kind) => shapeSchema(kind) as ShapeSchema);

/** Where particles are born. A mesh names bones to keep to the skin they move most; none is the whole skin. */
export const sourceSchema = z.discriminatedUnion('kind', [
  firstShape!,
  ...otherShapes,
  z.strictObject({
    kind: z.literal('path'),
    ...placed,
    /** Points of a drawn path, in metres from its place; it runs smoothly through them. */
    points: z.array(vectorSchema).min(2).max(256),
    closed: z.boolean(),
  }),
  z.strictObject({ kind: z.literal('mesh'), thing: onThing, bones: boneNames }),
  z.strictObject({ kind: z.literal('bones'), thing: onThing, bones: boneNames }),
  /** Where and when something is struck: by this list, and by strikes from outside, at which it listens. */
  z.strictObject({ kind: z.literal('hits'), hits: collectionSchema(hitSchema, 64) }),
  /** On the mesh that another layer is drawn as, as large, turned and bent as it is at that instant. */
  z.strictObject({
    kind: z.literal('drawn'),
    layer: bearing('on whose mesh to be born', 'on whose mesh they were born'),
  }),
  /** Where another layer's particles are. */
  z.strictObject({
    kind: z.literal('particles'),
    layer: bearing('to be born on', 'on whose particles they were born'),
  }),
]);
export type Source = z.infer<typeof sourceSchema>;
export type SourceKind = Source['kind'];
