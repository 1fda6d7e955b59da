import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { pinnedEffects } from './pins.ts';
import { kitForTests } from './kit.ts';
import { demoVector } from './demoVectors.ts';

const published = JSON.parse(readFileSync(new URL('../../docs/vectors.json', import.meta.url), 'utf8')) as {
  demo: Record<string, ReturnType<typeof demoVector>>;
};

it.each(['Wick Flame', 'Tide Sigil'])('the published hash and records of %s are computed so', async (name) => {
  const { kit, rigs } = await kitForTests();
  const { hashes, records } = demoVector(pinnedEffects(kit)[name]!, rigs, [60]);
  expect(published.demo[name]!.hashes['60']).toBe(hashes['60']);
  expect(published.demo[name]!.records).toEqual(JSON.parse(JSON.stringify(records)));
});
