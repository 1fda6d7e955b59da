import * as z from '../../zod/index.ts';
import { collectionSchema, vectorSchema } from '../../settings/index.ts';

/** Quality tiers, the least first. */
export const TIERS = ['low', 'middle', 'high'] as const;
export const tierName = z.enum(TIERS);
export type Tier = z.infer<typeof tierName>;

/** Lights that shine at once, at most: the stage has so many. */
export const MOST_LIGHTS = 16;

/** How far an effect is thinned in a tier. */
export const thinningSchema = z.strictObject({
  /** The share of the births that are kept, percent: the same ones each time. */
  births: z.number().min(1).max(100),
  /** Whether those that are kept are drawn larger, so that they cover as much as all of them. */
  keepsArea: z.boolean(),
  /** Lights of it that shine at once, at most. */
  lights: z.number().int().min(0).max(MOST_LIGHTS),
  /** How finely ribbons are laid and bent, percent. */
  joints: z.number().min(10).max(100),
});
export type Thinning = z.infer<typeof thinningSchema>;

/** Further from the camera than so many metres it is seen in a lower tier, or not at all. */
export const distanceSchema = z.strictObject({
  beyond: z.number().min(0.1).max(10_000),
  tier: z.enum(['none', ...TIERS]),
});
export type DistanceStep = z.infer<typeof distanceSchema>;

/** How an effect is thinned where a whole one costs too much. */
export const qualitySchema = z.strictObject({
  /** The tier it is seen in on the bench; whoever plays it chooses another. */
  shown: tierName,
  tiers: z.strictObject({ low: thinningSchema, middle: thinningSchema, high: thinningSchema }),
  distances: collectionSchema(distanceSchema, 8),
  /** A box about the effect's own place that all of it was found in, metres; null where that was not measured. */
  bounds: z.strictObject({ low: vectorSchema, high: vectorSchema }).nullable(),
});
export type Quality = z.infer<typeof qualitySchema>;

/** How a layer is thinned. */
export const layerQualitySchema = z.strictObject({
  /** The lowest tier that has it. */
  least: tierName,
  /** Whether births of its own are thinned by the tier. */
  thins: z.boolean(),
});
