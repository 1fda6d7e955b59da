import { readFileSync } from 'node:fs';
import { canonicalText } from '@jinx/core/document';
import { hashName } from '@jinx/core/formats';
import { expect, it } from 'vitest';
import { imported } from '../server/workers/imported.ts';
import { EFFECTS, KIT, KIT_FIGURES, KIT_PICTURES, KIT_PROPS, makeKit, PICTURED, shippedPicture } from './index.ts';

const files = [...KIT_FIGURES, ...KIT_PROPS, ...KIT_PICTURES];

it('what is shipped has pictures: every effect as it is now, every file of the kit', async () => {
  await makeKit();
  const assets = await Promise.all(
    files.map((file) => imported(new Uint8Array(readFileSync(new URL(file, KIT))), file)),
  );
  const kit = Object.fromEntries(assets.map(({ name, hash }) => [name, hash]));
  const now = EFFECTS.map((make) => make(kit));
  // Where an effect changed: npx tsx scripts/pictures/demo.ts
  expect(JSON.parse(readFileSync(PICTURED, 'utf8'))).toEqual(
    Object.fromEntries(now.map((effect) => [effect.name, hashName(new TextEncoder().encode(canonicalText(effect)))])),
  );
  const unpictured = [
    ...now.filter(({ name }) => !shippedPicture('effect', name)).map(({ name }) => name),
    ...files.filter((file) => !shippedPicture('kit', file)),
  ];
  expect(unpictured).toEqual([]);
});
