import type { Database, Session } from './database.ts';
import { sweepAssets } from './assets.ts';

/** What is deleted can be brought back for this long. */
export const KEPT_FOR = '30 days';

/** Tables whose rows are deleted for a while before they are gone. */
export type Deletable = 'projects' | 'effects' | 'tray';

/** Deletes something, so that it can be brought back, or brings it back. Returns whether it was there. */
export async function setDeleted(session: Session, table: Deletable, id: string, isDeleted: boolean): Promise<void> {
  await session.query(`update ${table} set deleted_at = ${isDeleted ? 'now()' : 'null'} where id = $1`, [id]);
}

/** Forgets what was deleted long ago, and edits that are only needed by those who were away for as long. */
export async function forgetOld(database: Database): Promise<void> {
  for (const table of ['tray', 'effects', 'projects', 'project_assets'])
    await database.query(`delete from ${table} where deleted_at < now() - $1::interval`, [KEPT_FOR]);
  await database.query(
    `delete from edits where made_at < now() - $1::interval and id not in (select head from effects)`,
    [KEPT_FOR],
  );
  await sweepAssets(database);
}
