import { randomUUID } from 'node:crypto';
import { apply, diff, DocumentError, inverted, parseChanged, type Change, type Effect } from '@jinx/core/document';
import { followed, linkedInto, merged, relinked } from '@jinx/core/editing';
import type { Session } from '../database.ts';
import { Refusal } from '../errors.ts';
import { mustNotHoldItself, noteLinked } from './linked.ts';
import { documentOf, textOf } from './memory.ts';
import { keepRevision } from './revisions.ts';
import { mustHaveAssets, standingOf, type Standing } from './store.ts';

/** What somebody changed of an effect since a revision. */
export interface Edit {
  /** Made by who sends it: an edit that is sent twice is taken once. */
  readonly id: string;
  readonly revision: number;
  readonly head: string;
  readonly changes: readonly Change[];
  /** What was done, in words. */
  readonly labels: readonly string[];
}

/** What others changed since. */
export interface Since {
  readonly revision: number;
  readonly head: string;
  readonly theirs: readonly Change[];
  readonly by: readonly string[];
  readonly labels: readonly string[];
}

/** What an edit came to. */
export interface Taken extends Since {
  /** Every effect that was written: the one, and those that follow it; as they stand now, to be kept at hand. */
  readonly written: ReadonlyMap<
    string,
    { readonly head: string; readonly revision: number; readonly document: Effect }
  >;
}

interface Past {
  id: string;
  revision: number;
  changes: string;
  labels: string[];
  author: string;
}

/** What led from a revision to where an effect stands, the newest first; null when that revision is not known any more. */
async function editsSince(session: Session, id: string, revision: number, head: string): Promise<Past[] | null> {
  const { rows } = await session.query<Past>(
    'select id, revision, changes, labels, author from edits where effect_id = $1 and revision >= $2 order by revision desc',
    [id, revision],
  );
  const oldest = rows.pop();
  return oldest?.revision === revision && oldest.id === head ? rows : null;
}

const before = (current: Effect, edits: readonly Past[]): Effect =>
  edits.reduce((document, { changes }) => apply(document, inverted(JSON.parse(changes) as Change[])), current);

const byOthers = (edits: readonly Past[], own: string) => {
  const others = edits.filter(({ id }) => id !== own);
  return {
    by: [...new Set(others.map(({ author }) => author))],
    labels: others.flatMap(({ labels }) => labels).slice(0, 20),
  };
};

/** Refuses what was made from a revision that is not known, or does not go with what came since; nothing is lost by it. */
const clash = (
  standing: Standing,
  document: Effect,
  theirs: readonly Change[] | null,
  why: string,
  by: readonly string[],
) => new Refusal(409, 'clash', why, { revision: standing.revision, head: standing.head, document, theirs, by });

const UNKNOWN =
  'This was made from a version of the effect that the server does not know: both are kept, choose which to go on with.';
const SAME_THING = 'Somebody else changed the same thing: choose which to keep.';

/** What others changed since a revision. */
export async function changedSince(session: Session, id: string, revision: number, head: string): Promise<Since> {
  const standing = await standingOf(session, id);
  const { revision: now, head: nowHead } = standing;
  if (head === nowHead) return { revision: now, head, theirs: [], by: [], labels: [] };
  const current = await documentOf(session, id, nowHead);
  const edits = await editsSince(session, id, revision, head);
  if (!edits) throw clash(standing, current, null, UNKNOWN, []);
  return { revision: now, head: nowHead, theirs: diff(before(current, edits), current), ...byOthers(edits, '') };
}

/**
 * Takes an edit, once: what was made from where the effect stands is written; what comes late is merged with what came
 * since; what clashes with that is refused, with what stands now. To be run in one transaction.
 */
export async function takeEdit(session: Session, id: string, edit: Edit, author: string): Promise<Taken> {
  const standing = await standingOf(session, id, 'for update');
  const current = await documentOf(session, id, standing.head);
  const written: Written = new Map();
  if (standing.head === edit.head) {
    const made = checked(current, apply(current, edit.changes));
    const now = await write(session, standing, current, made, edit, author, written);
    return { ...now, theirs: [], by: [], labels: [], written };
  }
  const edits = await editsSince(session, id, edit.revision, edit.head);
  if (!edits) throw clash(standing, current, null, UNKNOWN, []);
  const from = before(current, edits);
  const seen = apply(from, edit.changes);
  const others = byOthers(edits, edit.id);
  if (edits.some((past) => past.id === edit.id))
    return { revision: standing.revision, head: standing.head, theirs: diff(seen, current), ...others, written };
  const theirs = diff(from, current);
  const { document, clashes } = merged(current, theirs, edit.changes);
  if (clashes.length > 0) throw clash(standing, current, theirs, SAME_THING, others.by);
  const made = fitting(standing, current, document, theirs, others.by);
  const now = await write(session, standing, current, made, edit, author, written);
  return { ...now, theirs: diff(seen, made), ...others, written };
}

const checked = (current: Effect, made: Effect): Effect => (made === current ? current : parseChanged(current, made));

/** Two changes that are right each by itself may be wrong together. */
function fitting(
  standing: Standing,
  current: Effect,
  made: Effect,
  theirs: readonly Change[],
  by: readonly string[],
): Effect {
  try {
    return checked(current, made);
  } catch (error) {
    if (!(error instanceof DocumentError)) throw error;
    throw clash(standing, current, theirs, `This does not go with what somebody else changed: ${error.message}.`, by);
  }
}

type Written = Map<string, { head: string; revision: number; document: Effect }>;

/** Writes an effect over, and lets whoever hangs on it follow. */
async function write(
  session: Session,
  standing: Standing,
  current: Effect,
  made: Effect,
  { id: head, labels }: Pick<Edit, 'id' | 'labels'>,
  author: string,
  written: Written,
): Promise<{ revision: number; head: string }> {
  const { id, projectId } = standing;
  const changes = diff(current, made);
  if (changes.length === 0) return { revision: standing.revision, head: standing.head };
  const revision = standing.revision + 1;
  await mustHaveAssets(session, projectId, made, current);
  if (made.groups !== current.groups) {
    await mustNotHoldItself(session, id, made);
    if (linkedInto(made).join() !== linkedInto(current).join()) await noteLinked(session, id, made);
  }
  await keepRevision(session, id);
  await session.query(
    `with edit as (insert into edits (id, effect_id, revision, changes, labels, author) values ($6, $1, $4, $5, $7, $8))
     update effects set name = $2, document = $3, revision = $4, head = $6, saved_at = now(), saved_by = $8 where id = $1`,
    [id, made.name, textOf(made), revision, JSON.stringify(changes), head, labels, author],
  );
  written.set(id, { head, revision, document: made });
  await letFollow(session, id, current, made, author, written);
  return { revision, head };
}

/** Lets whoever hangs on an effect that was written over go with what was changed in it, and whoever hangs on them: its siblings, and effects it is linked into. */
async function letFollow(
  session: Session,
  id: string,
  was: Effect,
  is: Effect,
  author: string,
  written: Written,
): Promise<void> {
  const follow = async (ids: readonly { id: string }[], change: (own: Effect) => Effect) => {
    for (const { id: other } of ids) {
      const standing = await standingOf(session, other, 'for update');
      const current = await documentOf(session, other, standing.head);
      const edit = { id: randomUUID(), labels: [`follow ${is.name}`] };
      await write(session, standing, current, change(current), edit, author, written);
    }
  };
  const siblings = 'select id from effects where sibling_of = $1 and deleted_at is null order by id';
  await follow((await session.query<{ id: string }>(siblings, [id])).rows, (own) => followed(own, was, is));
  const holders =
    'select id from effects where id in (select effect_id from linked_effects where of_id = $1) and deleted_at is null order by id';
  await follow((await session.query<{ id: string }>(holders, [id])).rows, (own) => relinked(own, id, is));
}
