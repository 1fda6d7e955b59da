import * as z from '../zod/index.ts';
import { effectSchema } from '../document/index.ts';
import { attachmentsSchema, filmSettingsSchema } from '../formats/index.ts';

const onlyDocument = z.object({ document: effectSchema });

/** The answers that have to do with what stands in a document: with them comes all that a document is checked by. */
export const WITH_DOCUMENTS = {
  // Settings that another version kept, and that cannot be read, are null.
  'GET /projects/:id/presets': z.array(z.object({ name: z.string(), settings: filmSettingsSchema.nullable() })),
  'GET /effects/:id/attachments': attachmentsSchema,
  'GET /effects/:id/revisions/:revision': onlyDocument,
  'GET /tray/:id': onlyDocument,
} as const satisfies Readonly<Record<string, z.ZodType>>;
