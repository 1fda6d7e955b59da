// Writes docs/effect.schema.json and docs/attachments.schema.json from the schemas in the code: run with
// `npx tsx scripts/publish-schema.ts` when one of them changes.
import { writeFileSync } from 'node:fs';
import { effectJsonSchema } from '@jinx/core/document';
import { attachmentsJsonSchema } from '@jinx/core/formats';

const publish = (file: string, schema: unknown) =>
  writeFileSync(new URL(`../docs/${file}`, import.meta.url), `${JSON.stringify(schema, null, 1)}\n`);
publish('effect.schema.json', effectJsonSchema());
publish('attachments.schema.json', attachmentsJsonSchema());
