// Writes what docs/ holds of the code: docs/effect.schema.json, docs/attachments.schema.json, docs/fields.md and, of
// docs/vectors.json, what is computed of the runtime contract. Run with `npx tsx scripts/publish-schema.ts` when one of them
// changes, and only where that is meant.
import { readFileSync, writeFileSync } from 'node:fs';
import { effectJsonSchema } from '@jinx/core/document';
import { attachmentsJsonSchema } from '@jinx/core/formats';
import { SIMULATION } from '@jinx/core/simulation';
import { EFFECTS } from '@jinx/demo';
import { format, resolveConfig } from 'prettier';
import { fieldsText } from '../core/testing/contract/fields.ts';
import { contractVectors } from '../core/testing/contract/vectors.ts';
import { demoVector } from '../demo/testing/demoVectors.ts';
import { kitForTests } from '../demo/testing/kit.ts';

const docs = (file: string) => new URL(`../docs/${file}`, import.meta.url);
const publish = async (file: string, value: unknown) => {
  const options = await resolveConfig(docs(file));
  writeFileSync(docs(file), await format(JSON.stringify(value), { ...options, parser: 'json' }));
};
writeFileSync(docs('effect.schema.json'), `${JSON.stringify(effectJsonSchema(), null, 1)}\n`);
await publish('attachments.schema.json', attachmentsJsonSchema());
writeFileSync(docs('fields.md'), fieldsText());

const { kit, rigs } = await kitForTests();
const demo = EFFECTS.map((make) => make(kit)).map((effect) => [effect.name, demoVector(effect, rigs)] as const);
// Draws and curves are what they always were: they are kept by hand.
const kept = JSON.parse(readFileSync(docs('vectors.json'), 'utf8')) as object;
const vectors = { ...kept, simulation: SIMULATION, ...contractVectors(), demo: Object.fromEntries(demo) };
await publish('vectors.json', vectors);
