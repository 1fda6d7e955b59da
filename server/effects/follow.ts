import { randomUUID } from 'node:crypto';
import type { Following } from '@jinx/core/answers';
import { diff, readKept, type Effect } from '@jinx/core/document';
import { followed, relinked } from '@jinx/core/editing';
import type { Session } from '../database.ts';
import { before, write, type Written } from './edit.ts';
import { documentOf } from './memory.ts';
import { standingOf } from './store.ts';

/** An effect that has yet to take the changes of another. */
export interface Pair {
  readonly effectId: string;
  readonly ofId: string;
}

/** The next effect that has something to take. */
export async function nextPair(session: Session): Promise<Pair | null> {
  const { rows } = await session.query<Pair>(
    'select effect_id as "effectId", of_id as "ofId" from following where failed is null order by id limit 1',
  );
  return rows[0] ?? null;
}

/** Lets an effect take all it has yet to take of another. To be run in one transaction. */
export async function follow(session: Session, { effectId, ofId }: Pair, written: Written): Promise<void> {
  // Its row is locked first, so that two servers do not take the same.
  const { rowCount } = await session.query('select 1 from effects where id = $1 and deleted_at is null for update', [
    effectId,
  ]);
  const { rows } = await session.query<{ from: number; to: number; author: string }>(
    `delete from following where effect_id = $1 and of_id = $2
     returning from_revision as "from", to_revision as "to", author`,
    [effectId, ofId],
  );
  if (!rowCount || rows.length === 0) return;
  const from = Math.min(...rows.map((row) => row.from));
  const to = Math.max(...rows.map((row) => row.to));
  const states = await statesOf(session, ofId, [from, to]);
  if (!states) return;
  const [was, is] = states;
  const standing = await standingOf(session, effectId);
  const own = await documentOf(session, effectId, standing.head);
  const relation = await session.query<{ isSibling: boolean; holds: boolean }>(
    `select sibling_of is not distinct from $2 as "isSibling",
       exists (select 1 from linked_effects where effect_id = $1 and of_id = $2) as holds from effects where id = $1`,
    [effectId, ofId],
  );
  const { isSibling, holds } = relation.rows[0]!;
  let made = isSibling ? followed(own, was, is) : own;
  if (holds) made = relinked(made, ofId, is);
  if (diff(own, made).length === 0) return;
  const edit = { id: randomUUID(), labels: [`follow ${is.name}`] };
  await write(session, { ...standing, document: own }, made, edit, rows[0]!.author, written);
}

/** What an effect was at two of its revisions; null when it is gone, or its edits are not known any more. */
async function statesOf(
  session: Session,
  id: string,
  [from, to]: readonly [number, number],
): Promise<readonly [Effect, Effect] | null> {
  // In one query, for it may be changed at this moment.
  const { rows } = await session.query<{
    document: string;
    revision: number;
    edits: { n: number; changes: string }[];
  }>(
    `select document, revision, coalesce((select json_agg(json_build_object('n', edits.revision, 'changes', changes)
       order by edits.revision desc) from edits where effect_id = $1 and edits.revision > $2), '[]') as edits
     from effects where id = $1 and deleted_at is null`,
    [id, from],
  );
  const row = rows[0];
  if (!row || row.edits.length !== row.revision - from) return null;
  const is = before(
    readKept(row.document),
    row.edits.filter(({ n }) => n > to),
  );
  return [
    before(
      is,
      row.edits.filter(({ n }) => n <= to),
    ),
    is,
  ];
}

/** Lets an effect take at once what it has yet to take, of whatever others. To be run in one transaction. */
export async function followNow(session: Session, effectId: string, written: Written): Promise<void> {
  const { rows } = await session.query<Pair>(
    'select distinct effect_id as "effectId", of_id as "ofId" from following where effect_id = $1',
    [effectId],
  );
  for (const pair of rows) await follow(session, pair, written);
}

/** How many transactions the snapshot of a query sees as ended: a later snapshot that sees more has a greater number. */
const COMMITTED = `pg_snapshot_xmax(pg_current_snapshot())::text::bigint
  - (select count(*) from pg_snapshot_xip(pg_current_snapshot()))`;

/** How far the effects that follow one have come. */
export async function followingOf(session: Session, id: string): Promise<Following> {
  const { rows } = await session.query<{ at: string; name: string | null; sentence: string | null }>(
    `select ${COMMITTED} as at, name, sentence from (select 1) as once left join (
       select name, max(failed) as sentence from following join effects on effects.id = effect_id
       where of_id = $1 and deleted_at is null group by effects.id, name
     ) as those on true order by name`,
    [id],
  );
  const followers = rows.filter(({ name }) => name !== null);
  const failed = followers.flatMap(({ name, sentence }) => (sentence === null ? [] : [{ name: name!, sentence }]));
  return { at: Number(rows[0]!.at), waiting: followers.length - failed.length, failed };
}
