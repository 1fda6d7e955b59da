import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { KIT, KIT_FIGURES, lamplitMantle, makeKit } from '@jinx/demo';
import { imported, keepAsset } from './assets.ts';
import { inTransaction, type Database } from './database.ts';
import { addEffect } from './effects.ts';

/** Puts the Fenlight demo in, once: a demo project that was deleted stays deleted. */
export async function seed(database: Database): Promise<void> {
  const { rowCount } = await database.query(`select 1 from facts where name = 'seeded'`);
  if (rowCount) return;
  await makeKit();
  const figures = await Promise.all(
    KIT_FIGURES.map((file) => imported(new Uint8Array(readFileSync(new URL(file, KIT))), file)),
  );
  await inTransaction(database, async (session) => {
    const projectId = randomUUID();
    await session.query('insert into projects (id, name) values ($1, $2)', [projectId, 'Fenlight']);
    const hashes = new Map<string, string>();
    for (const figure of figures) {
      const name = figure.name[0]!.toUpperCase() + figure.name.slice(1);
      hashes.set(name, (await keepAsset(session, projectId, { ...figure, name })).hash);
    }
    await addEffect(session, projectId, lamplitMantle(hashes.get('Sedge')!));
    await session.query(`insert into facts (name, value) values ('seeded', '1') on conflict do nothing`);
  });
}
