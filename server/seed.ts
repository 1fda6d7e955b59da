import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { EFFECTS, KIT, KIT_FIGURES, KIT_PICTURES, KIT_PROPS, makeKit } from '@jinx/demo';
import { imported, keepAsset } from './assets.ts';
import { inTransaction, type Database } from './database.ts';
import { addEffect } from './effects.ts';

/** Puts the Fenlight demo in, once: a demo project that was deleted stays deleted. */
export async function seed(database: Database): Promise<void> {
  const { rowCount } = await database.query(`select 1 from facts where name = 'seeded'`);
  if (rowCount) return;
  await makeKit();
  const assets = await Promise.all(
    [...KIT_FIGURES, ...KIT_PROPS, ...KIT_PICTURES].map((file) =>
      imported(new Uint8Array(readFileSync(new URL(file, KIT))), file),
    ),
  );
  await inTransaction(database, async (session) => {
    const projectId = randomUUID();
    await session.query('insert into projects (id, name) values ($1, $2)', [projectId, 'Fenlight']);
    const hashes = new Map<string, string>();
    for (const asset of assets) {
      const name = asset.name[0]!.toUpperCase() + asset.name.slice(1);
      hashes.set(asset.name, (await keepAsset(session, projectId, { ...asset, name })).hash);
    }
    for (const make of EFFECTS) await addEffect(session, projectId, make(Object.fromEntries(hashes)));
    await session.query(`insert into facts (name, value) values ('seeded', '1') on conflict do nothing`);
  });
}
