// Writes docs/effect.schema.json from the one schema: run with `npx tsx scripts/publish-schema.ts` when the document changes.
import { writeFileSync } from 'node:fs';
import { effectJsonSchema } from '@jinx/core/document';

writeFileSync(
  new URL('../docs/effect.schema.json', import.meta.url),
  `${JSON.stringify(effectJsonSchema(), null, 1)}\n`,
);
