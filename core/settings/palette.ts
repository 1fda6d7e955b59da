import * as z from '../zod/index.ts';
import type { Collection } from './collection.ts';
import { ref } from './refs.ts';
import { hexSchema, itemName } from './setting.ts';

export const paletteEntrySchema = z.strictObject({
  name: itemName,
  colour: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('fixed'), hex: hexSchema }),
    /** Another entry, its hue turned by degrees, then mixed toward white (lighter above 0) or black (below 0). */
    z.strictObject({
      kind: z.literal('derived'),
      from: ref('palette', { whenGone: 'value' }),
      turned: z.number().min(-180).max(180),
      lighter: z.number().min(-1).max(1),
    }),
  ]),
  /** Whether it is brought out as a dial, for whoever places the effect to set. */
  isDial: z.boolean(),
});
export type PaletteEntry = z.infer<typeof paletteEntrySchema>;
export type Palette = Collection<PaletteEntry>;
