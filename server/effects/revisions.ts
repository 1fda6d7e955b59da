import type { Revision } from '@jinx/core/answers';
import { readKept, type Effect } from '@jinx/core/document';
import type { Session } from '../database.ts';
import { notFound } from '../errors.ts';

/** What was saved over is kept at most this often while somebody works on it, so that a long sitting does not fill the disk. */
const KEPT_EVERY = '2 minutes';
/** Those that have a name are kept beside these. */
const MOST_KEPT = 200;

/** Keeps an effect as it is about to be written over: what it was before a pause always, and else unless it was kept a moment ago. */
export async function keepRevision(session: Session, id: string): Promise<void> {
  const { rowCount } = await session.query(
    `insert into revisions (effect_id, revision, document, kept_at, author)
     select id, revision, document, saved_at, saved_by from effects where id = $1
       and (saved_at < now() - $2::interval or not exists
         (select 1 from revisions where effect_id = $1 and kept_at > effects.saved_at - $2::interval))
     on conflict do nothing`,
    [id, KEPT_EVERY],
  );
  if (rowCount === 0) return;
  await session.query(
    `delete from revisions where effect_id = $1 and name is null and revision <=
       (select revision from revisions where effect_id = $1 and name is null order by revision desc offset $2 limit 1)`,
    [id, MOST_KEPT],
  );
}

/** Words told of one revision at most. */
const MOST_LABELS = 40;

/** Revisions of an effect, the newest first: where it stands, then those that are kept. */
export async function revisionsOf(session: Session, id: string): Promise<Revision[]> {
  const { rows } = await session.query<Revision>(
    `with all_kept as (
       select revision, kept_at as "savedAt", author as by, name from revisions where effect_id = $1
       union all select revision, saved_at, saved_by, null from effects
         where id = $1 and not exists (select 1 from revisions where effect_id = $1 and revision = effects.revision)
     ), spans as (
       select *, coalesce(lag(revision) over (order by revision), 0) as since from all_kept
     )
     select revision, "savedAt", by, name, array(
       select label from edits, unnest(labels) with ordinality as told (label, n)
       where effect_id = $1 and edits.revision > since and edits.revision <= spans.revision
       order by edits.revision desc, n desc limit ${MOST_LABELS}
     ) as labels
     from spans order by revision desc`,
    [id],
  );
  return rows.map((row) => ({ ...row, labels: [...row.labels].reverse() }));
}

/** An effect as it was at a revision. */
export async function loadRevision(session: Session, id: string, revision: number): Promise<Effect> {
  const { rows } = await session.query<{ document: string }>(
    `select document from revisions where effect_id = $1 and revision = $2
     union all select document from effects where id = $1 and revision = $2`,
    [id, revision],
  );
  if (!rows[0]) throw notFound('revision');
  return readKept(rows[0].document);
}

/** Gives a revision a name, by which it is kept for good; none takes it away. */
export async function nameRevision(
  session: Session,
  id: string,
  revision: number,
  name: string | null,
): Promise<void> {
  await session.query(
    `insert into revisions (effect_id, revision, document, kept_at, author)
     select id, revision, document, saved_at, saved_by from effects where id = $1 and revision = $2
     on conflict do nothing`,
    [id, revision],
  );
  const { rowCount } = await session.query('update revisions set name = $3 where effect_id = $1 and revision = $2', [
    id,
    revision,
    name,
  ]);
  if (rowCount === 0) throw notFound('revision');
}
