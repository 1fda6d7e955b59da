import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { KIT, lamplitMantle, makeKit } from '@jinx/demo';
import { imported, keepAsset } from './assets.ts';
import { inTransaction, type Database } from './database.ts';
import { addEffect } from './effects.ts';

/** Puts the Fenlight demo in, once: a demo project that was deleted stays deleted. */
export async function seed(database: Database): Promise<void> {
  const { rowCount } = await database.query(`select 1 from facts where name = 'seeded'`);
  if (rowCount) return;
  await makeKit();
  const sedge = await imported(new Uint8Array(readFileSync(new URL('sedge.glb', KIT))), 'sedge.glb');
  await inTransaction(database, async (session) => {
    const projectId = randomUUID();
    await session.query('insert into projects (id, name) values ($1, $2)', [projectId, 'Fenlight']);
    const { hash } = await keepAsset(session, projectId, { ...sedge, name: 'Sedge' });
    await addEffect(session, projectId, lamplitMantle(hash));
    await session.query(`insert into facts (name, value) values ('seeded', '1') on conflict do nothing`);
  });
}
