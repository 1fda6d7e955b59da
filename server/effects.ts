import { randomUUID } from 'node:crypto';
import { canonicalText, parseEffect, type Effect } from '@jinx/core/document';
import { followed, linkedInto, relinked } from '@jinx/core/editing';
import { assetsOf, rigsOf } from '@jinx/core/formats';
import type { Session } from './database.ts';
import { notFound, Refusal } from './errors.ts';

export interface StoredEffect {
  readonly id: string;
  readonly projectId: string;
  readonly revision: number;
  readonly document: Effect;
}

interface Row {
  id: string;
  project_id: string;
  revision: number;
  document: string;
}

const stored = (row: Row): StoredEffect => ({
  id: row.id,
  projectId: row.project_id,
  revision: row.revision,
  document: parseEffect(JSON.parse(row.document)),
});

export async function loadEffect(session: Session, id: string): Promise<StoredEffect> {
  const { rows } = await session.query<Row>('select * from effects where id = $1', [id]);
  if (!rows[0]) throw notFound('effect');
  return stored(rows[0]);
}

/** An effect that another hangs together with. */
export interface Kin {
  readonly id: string;
  readonly name: string;
}

/** The effect that one keeps what it does not change of, if it does, and those that do so of it. */
export async function kinOf(session: Session, id: string): Promise<{ siblingOf: Kin | null; siblings: Kin[] }> {
  const of = await session.query<Kin>(
    'select id, name from effects where id = (select sibling_of from effects where id = $1)',
    [id],
  );
  const siblings = await session.query<Kin>('select id, name from effects where sibling_of = $1 order by name, id', [
    id,
  ]);
  return { siblingOf: of.rows[0] ?? null, siblings: siblings.rows };
}

/** Refuses an effect whose figures, props and pictures the project does not have. */
async function mustHaveAssets(session: Session, projectId: string, effect: Effect): Promise<void> {
  for (const hash of assetsOf(effect)) {
    const { rowCount } = await session.query('select 1 from project_assets where project_id = $1 and hash = $2', [
      projectId,
      hash,
    ]);
    if (rowCount === 0)
      throw new Refusal(
        422,
        'missing-asset',
        'This effect uses a figure, a prop or a picture that the project does not have: import it first.',
        { path: rigsOf(effect).includes(hash) ? 'stage.things' : 'looks' },
      );
  }
}

export async function addEffect(
  session: Session,
  projectId: string,
  document: unknown,
  siblingOf: string | null = null,
): Promise<StoredEffect> {
  const effect = parseEffect(document);
  await mustHaveAssets(session, projectId, effect);
  const id = randomUUID();
  await session.query(
    'insert into effects (id, project_id, name, document, sibling_of) values ($1, $2, $3, $4, $5)',
    [id, projectId, effect.name, canonicalText(effect), siblingOf],
  );
  await noteLinked(session, id, effect);
  return { id, projectId, revision: 1, document: effect };
}

/** Makes a sibling of an effect: it is the same but for its name, and keeps what it does not change. */
export async function addSibling(session: Session, id: string, name: string): Promise<StoredEffect> {
  const { projectId, document } = await loadEffect(session, id);
  return addEffect(session, projectId, { ...document, name }, id);
}

/** A sibling that no longer follows; it stays as it is. */
export async function letSiblingGo(session: Session, id: string): Promise<void> {
  const { rowCount } = await session.query('update effects set sibling_of = null where id = $1', [id]);
  if (rowCount === 0) throw notFound('effect');
}

/** What was saved over is kept at most this often, so that a long sitting does not fill the disk. */
const KEPT_EVERY = '2 minutes';
const MOST_KEPT = 200;

/** Keeps an effect as it is about to be written over, unless it was kept a moment ago. */
async function keepRevision(session: Session, { id, revision, document }: Row): Promise<void> {
  const { rowCount } = await session.query(
    `insert into revisions (effect_id, revision, document)
     select $1, $2, $3 where not exists
       (select 1 from revisions where effect_id = $1 and kept_at > now() - $4::interval)
     on conflict do nothing`,
    [id, revision, document, KEPT_EVERY],
  );
  if (rowCount === 0) return;
  await session.query(
    `delete from revisions where effect_id = $1 and revision <=
       (select revision from revisions where effect_id = $1 order by revision desc offset $2 limit 1)`,
    [id, MOST_KEPT],
  );
}

/** Revisions of an effect that are kept, the newest first. */
export async function revisionsOf(session: Session, id: string): Promise<{ revision: number; keptAt: string }[]> {
  const { rows } = await session.query<{ revision: number; keptAt: string }>(
    'select revision, kept_at as "keptAt" from revisions where effect_id = $1 order by revision desc',
    [id],
  );
  return rows;
}

/** An effect as it was at a revision. */
export async function loadRevision(session: Session, id: string, revision: number): Promise<Effect> {
  const { rows } = await session.query<{ document: string }>(
    'select document from revisions where effect_id = $1 and revision = $2',
    [id, revision],
  );
  if (!rows[0]) throw notFound('revision');
  return parseEffect(JSON.parse(rows[0].document));
}

/** Notes which effects stand in one. */
async function noteLinked(session: Session, id: string, effect: Effect): Promise<void> {
  await session.query(
    `with gone as (delete from linked_effects where effect_id = $1 and of_id <> all($2::uuid[]))
     insert into linked_effects (effect_id, of_id) select $1, unnest($2::uuid[]) on conflict do nothing`,
    [id, linkedInto(effect)],
  );
}

async function write(session: Session, row: Row, effect: Effect): Promise<void> {
  await keepRevision(session, row);
  await noteLinked(session, row.id, effect);
  await session.query(
    'update effects set name = $2, document = $3, revision = revision + 1, saved_at = now() where id = $1',
    [row.id, effect.name, canonicalText(effect)],
  );
}

/** Lets whoever hangs on an effect that was written over go with what was changed in it, and whoever hangs on them: its siblings, and effects it is linked into. */
async function letFollow(session: Session, row: Row, after: Effect): Promise<void> {
  const { id } = row;
  const follow = async (other: Row, change: (was: Effect) => Effect) => {
    const is = change(stored(other).document);
    if (canonicalText(is) === other.document) return;
    await write(session, other, is);
    await letFollow(session, other, is);
  };
  const siblings = 'select * from effects where sibling_of = $1 order by id for update';
  const followers = (await session.query<Row>(siblings, [id])).rows;
  // Most effects have none: what was there before is read only for those that do.
  const before = followers.length > 0 ? stored(row).document : after;
  for (const other of followers) await follow(other, (was) => followed(was, before, after));
  const linking =
    'select * from effects where id in (select effect_id from linked_effects where of_id = $1) order by id for update';
  for (const other of (await session.query<Row>(linking, [id])).rows)
    await follow(other, (was) => relinked(was, id, after));
}

/**
 * Refuses an effect that would stand in itself, by however many others: in it may stand neither itself, nor what holds it,
 * nor what follows it as a sibling, for that would take on what is linked here.
 */
async function mustNotHoldItself(session: Session, id: string, effect: Effect): Promise<void> {
  const linked = linkedInto(effect);
  if (linked.length === 0) return;
  const { rowCount } = await session.query(
    `with recursive within (id) as (
       select unnest($2::uuid[])
       union select next.id from within, lateral (
         select of_id as id from linked_effects where effect_id = within.id
         union all select sibling_of from effects where effects.id = within.id and sibling_of is not null
       ) as next
     ) select 1 from within where id = $1`,
    [id, linked],
  );
  if (rowCount)
    throw new Refusal(
      422,
      'circle',
      'An effect cannot stand in itself: one that is linked here holds it already, or follows it.',
      { path: 'groups' },
    );
}

/**
 * Saves over the revision the change was made from. A save made from an older one is kept apart and refused with what
 * stands now, so that nobody's work is lost. Whoever hangs on it follows.
 */
export async function saveEffect(
  session: Session,
  id: string,
  revision: number,
  document: unknown,
): Promise<number | StoredEffect> {
  const effect = parseEffect(document);
  const { rows } = await session.query<Row>('select * from effects where id = $1 for update', [id]);
  const row = rows[0];
  if (!row) throw notFound('effect');
  await mustHaveAssets(session, row.project_id, effect);
  if (row.revision !== revision) {
    const text = canonicalText(effect);
    if (row.document === text) return row.revision;
    await session.query('insert into refused_saves (id, effect_id, made_from, document) values ($1, $2, $3, $4)', [
      randomUUID(),
      id,
      revision,
      text,
    ]);
    return stored(row);
  }
  await mustNotHoldItself(session, id, effect);
  await write(session, row, effect);
  await letFollow(session, row, effect);
  return revision + 1;
}
