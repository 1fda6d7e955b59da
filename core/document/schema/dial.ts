import * as z from '../../zod/index.ts';
import { asset, assetHash, itemName, vectorSchema } from '../../settings/index.ts';

export const measureSchema = z.strictObject({
  name: itemName,
  quantity: z.enum(['length', 'time', 'count']),
  value: z.number().min(0).max(1_000_000),
});
export type Measure = z.infer<typeof measureSchema>;

const standsFor = z.strictObject({ asset: assetHash, name: itemName });

/** A value brought out of the effect. What shapers read of a number is its share of the range, of a switch 0 or 1. */
export const dialSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('number'),
    name: itemName,
    least: z.number().min(-1e6).max(1e6),
    most: z.number().min(-1e6).max(1e6),
    value: z.number().min(-1e6).max(1e6),
  }),
  z.strictObject({ kind: z.literal('switch'), name: itemName, value: z.boolean() }),
  /** Metres in the world. */
  z.strictObject({ kind: z.literal('place'), name: itemName, at: vectorSchema }),
  /** Degrees round X, then Y, then Z. */
  z.strictObject({ kind: z.literal('direction'), name: itemName, turn: vectorSchema }),
  /** Whatever in the effect shows the one picture, or is drawn as the one mesh, shows or is the other. */
  z.strictObject({
    kind: z.literal('picture'),
    name: itemName,
    standsFor,
    shows: z.strictObject({ asset: asset('picture'), name: itemName }),
  }),
  z.strictObject({
    kind: z.literal('mesh'),
    name: itemName,
    standsFor,
    shows: z.strictObject({ asset: asset('mesh'), name: itemName }),
  }),
]);
export type Dial = z.infer<typeof dialSchema>;

/** A moment that the game announces. On the stage it may be tried, so many seconds into a stretch. */
export const signalSchema = z.strictObject({
  name: itemName,
  tried: z
    .strictObject({ stretch: z.enum(['opening', 'hold', 'closing']), at: z.number().min(0).max(3600) })
    .nullable(),
});
export type Signal = z.infer<typeof signalSchema>;

export const stretchesSchema = z.strictObject({
  opening: z.number().min(0).max(600),
  hold: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('none') }),
    /** Births run on until the effect is let go. */
    z.strictObject({ kind: z.literal('continuing'), seconds: z.number().min(0.1).max(600) }),
    /** Every turn is the same as the one before, so that it may be played round and round. */
    z.strictObject({ kind: z.literal('seamless'), seconds: z.number().min(0.1).max(600) }),
  ]),
  /** Seconds it has held already when it is first seen. */
  preRoll: z.number().min(0).max(60),
  closing: z.number().min(0).max(600),
});
export type Stretches = z.infer<typeof stretchesSchema>;
