import type { Database, Session } from './database.ts';
import { sweepAssets } from './assets.ts';
import { loadEffect, mustHaveAssets } from './effects/index.ts';

/** What is deleted can be brought back for this long. */
const KEPT_FOR = '30 days';

/** Tables whose rows are deleted for a while before they are gone. */
export type Deletable = 'projects' | 'effects' | 'tray';

/** Deletes something, so that it can be brought back, or brings it back. */
export async function setDeleted(session: Session, table: Deletable, id: string, isDeleted: boolean): Promise<void> {
  await session.query(`update ${table} set deleted_at = ${isDeleted ? 'now()' : 'null'} where id = $1`, [id]);
}

/** Brings an effect back, with what it uses. */
export async function restoreEffect(session: Session, id: string): Promise<void> {
  await setDeleted(session, 'effects', id, false);
  const { projectId, document } = await loadEffect(session, id);
  await mustHaveAssets(session, projectId, document);
}

/** Whether any state of an effect that is kept uses an asset of its project: then it is not forgotten. */
const IS_USED = `exists (select 1 from effects where effects.project_id = project_assets.project_id and (
  strpos(document, project_assets.hash) > 0
  or exists (select 1 from revisions where effect_id = effects.id and strpos(revisions.document, project_assets.hash) > 0)
  or exists (select 1 from tray where effect_id = effects.id and strpos(tray.document, project_assets.hash) > 0)))`;

/** Forgets what was deleted long ago, and edits that are only needed by those who were away for as long. */
export async function forgetOld(database: Database): Promise<void> {
  for (const table of ['tray', 'effects', 'projects'])
    await database.query(`delete from ${table} where deleted_at < now() - $1::interval`, [KEPT_FOR]);
  await database.query(`delete from project_assets where deleted_at < now() - $1::interval and not ${IS_USED}`, [
    KEPT_FOR,
  ]);
  await database.query(
    `delete from edits where made_at < now() - $1::interval and id not in (select head from effects)
     and not exists (select 1 from following where of_id = edits.effect_id)`,
    [KEPT_FOR],
  );
  await sweepAssets(database);
}
