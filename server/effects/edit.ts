import { randomUUID } from 'node:crypto';
import type { Since } from '@jinx/core/answers';
import {
  apply,
  diff,
  DocumentError,
  inverted,
  parseChangedSteps,
  type Change,
  type Edit,
  type Effect,
} from '@jinx/core/document';
import { linkedInto, merged } from '@jinx/core/editing';
import type { Session } from '../database.ts';
import { Refusal } from '../errors.ts';
import { inTurns } from '../turns.ts';
import { QUEUE_FOLLOWERS } from './queueFollowers.ts';
import { mustNotHoldItself, noteLinked } from './linked.ts';
import { documentOf, textOf } from './memory.ts';
import { keepRevision } from './revisions.ts';
import { mustHaveAssets, standingOf, type Standing } from './store.ts';

/** What somebody made of an effect since a revision, one after another: each from what came of that before it. */
export interface Edits {
  readonly revision: number;
  readonly head: string;
  readonly edits: readonly Edit[];
}

/** What an edit came to. */
export interface Taken extends Since {
  readonly written: Written;
}

interface Past {
  id: string;
  revision: number;
  changes: string;
  labels: string[];
  author: string;
}

/** Edits that are gone back over at most, and bytes of their changes: what is older is shown beside what stands now. */
const MOST_PAST = 2000;
const MOST_PAST_BYTES = 32 * 1024 * 1024;

/** What led from a revision to where an effect stands, the newest first; null when that revision is not known any more. */
async function editsSince(session: Session, id: string, revision: number, head: string): Promise<Past[] | null> {
  const sum = await session.query<{ count: string; bytes: string | null }>(
    'select count(*), sum(pg_column_size(changes)) as bytes from edits where effect_id = $1 and revision >= $2',
    [id, revision],
  );
  if (Number(sum.rows[0]!.count) > MOST_PAST || Number(sum.rows[0]!.bytes) > MOST_PAST_BYTES) return null;
  const { rows } = await session.query<Past>(
    'select id, revision, changes, labels, author from edits where effect_id = $1 and revision >= $2 order by revision desc',
    [id, revision],
  );
  const oldest = rows.pop();
  return oldest?.revision === revision && oldest.id === head ? rows : null;
}

/** What an effect was before edits, the newest first. */
export const before = (current: Effect, edits: readonly Pick<Past, 'changes'>[]): Effect =>
  edits.reduce((document, { changes }) => apply(document, inverted(JSON.parse(changes) as Change[])), current);

const byOthers = (edits: readonly Past[], own: ReadonlySet<string>) => {
  const others = edits.filter(({ id }) => !own.has(id));
  return {
    by: [...new Set(others.map(({ author }) => author))],
    labels: others.flatMap(({ labels }) => labels).slice(0, 20),
  };
};

type Now = Standing & { readonly document: Effect };

/**
 * Refuses what was made from a revision that is not known, or does not go with what came since; nothing is lost by it.
 * @param taken how many of the edits had been taken before.
 */
const clash = (
  { revision, head, document }: Now,
  theirs: readonly Change[] | null,
  why: string,
  by: readonly string[] = [],
  taken = 0,
) => new Refusal(409, 'clash', why, { revision, head, document, theirs, by, taken });

const UNKNOWN =
  'This was made from a version of the effect that the server does not know: both are kept, choose which to go on with.';
const SAME_THING = 'Somebody else changed the same thing: choose which to keep.';

/** What others changed since a revision. */
export async function changedSince(session: Session, id: string, revision: number, head: string): Promise<Since> {
  const standing = await standingOf(session, id);
  const at = { revision: standing.revision, head: standing.head };
  if (head === standing.head) return { ...at, theirs: [], by: [], labels: [] };
  const document = await documentOf(session, id, standing.head);
  const edits = await editsSince(session, id, revision, head);
  if (!edits) throw clash({ ...standing, document }, null, UNKNOWN);
  return { ...at, theirs: diff(before(document, edits), document), ...byOthers(edits, new Set()) };
}

/**
 * Takes edits, each once: what was made from where the effect stands is written; what comes late is merged with what came
 * since; if any clashes with that, none is taken, and what stands now is told. To be run in one transaction.
 */
export async function takeEdits(session: Session, id: string, sent: Edits, author: string): Promise<Taken> {
  const standing = await standingOf(session, id, 'for update');
  const start: Now = { ...standing, document: await documentOf(session, id, standing.head) };
  const past = standing.head === sent.head ? [] : await editsSince(session, id, sent.revision, sent.head);
  if (!past) throw clash(start, null, UNKNOWN);
  const known = new Set(past.map((edit) => edit.id));
  const taken = sent.edits.filter((edit) => known.has(edit.id));
  const others = byOthers(past, new Set(taken.map((edit) => edit.id)));
  // What whoever sent it sees: what stood there then, with their own edits and nobody else's.
  const from = taken.reduce((document, { changes }) => apply(document, changes), before(start.document, past));
  const refused = (why: string) => clash(start, diff(from, start.document), why, others.by, taken.length);

  const written: Written = new Map();
  let [now, seen] = [start, from];
  for (const edit of sent.edits.slice(taken.length)) {
    const theirs = diff(seen, now.document);
    const { document, clashes } =
      theirs.length > 0
        ? merged(now.document, theirs, edit.changes)
        : { document: apply(now.document, edit.changes), clashes: [] };
    if (clashes.length > 0) throw refused(SAME_THING);
    const made = await (theirs.length > 0
      ? checkMerged(now.document, document, refused)
      : checkMade(now.document, document));
    seen = theirs.length > 0 ? apply(seen, edit.changes) : made;
    now = await write(session, now, made, edit, author, written);
  }
  const { revision, head } = now;
  return { revision, head, theirs: diff(seen, now.document), ...others, written };
}

const checkMade = async (current: Effect, made: Effect): Promise<Effect> =>
  made === current ? current : inTurns(parseChangedSteps(current, made));

/** Two changes that are right each by itself may be wrong together. */
async function checkMerged(current: Effect, made: Effect, refused: (why: string) => Refusal): Promise<Effect> {
  try {
    return await checkMade(current, made);
  } catch (error) {
    if (!(error instanceof DocumentError)) throw error;
    throw refused(`This does not go with what somebody else changed: ${error.message}.`);
  }
}

/** Every effect that was written, as it stands now: to be kept at hand, and told to whoever has it open. */
export type Written = Map<
  string,
  {
    readonly head: string;
    readonly revision: number;
    readonly document: Effect;
    /** Others that have yet to take what was written. */
    readonly followers: number;
  }
>;

/** Writes an effect over, and notes which others have yet to follow. Returns where it stands then. */
export async function write(
  session: Session,
  now: Now,
  made: Effect,
  { id: head, labels }: Pick<Edit, 'id' | 'labels'>,
  author: string,
  written: Written,
): Promise<Now> {
  const { id, projectId, document: current } = now;
  // One that changes nothing, since others did the same, is written too: sent again, it is known.
  const changes = diff(current, made);
  const revision = now.revision + 1;
  await mustHaveAssets(session, projectId, made, current);
  if (made.groups !== current.groups) {
    await mustNotHoldItself(session, id, made);
    if (linkedInto(made).join() !== linkedInto(current).join()) await noteLinked(session, id, made);
  }
  await keepRevision(session, id);
  const { rows } = await session.query<{ followers: number }>(
    `with edit as (insert into edits (id, effect_id, revision, changes, labels, author) values ($6, $1, $4, $5, $7, $8)),
     followers as (${QUEUE_FOLLOWERS})
     update effects set name = $2, document = $3, revision = $4, head = $6, saved_at = now(), saved_by = $8 where id = $1
     returning (select count(*)::integer from followers) as followers`,
    [id, made.name, textOf(made), revision, JSON.stringify(changes), head, labels, author, changes.length > 0],
  );
  written.set(id, { head, revision, document: made, followers: rows[0]!.followers });
  return { ...now, revision, head, document: made };
}

/** Writes an effect over as a whole, from wherever it stands. */
export async function replaceEffect(
  session: Session,
  id: string,
  made: Effect,
  label: string,
  author: string,
  written: Written,
): Promise<void> {
  const standing = await standingOf(session, id, 'for update');
  const document = await documentOf(session, id, standing.head);
  const edit = { id: randomUUID(), labels: [label] };
  await write(session, { ...standing, document }, await checkMade(document, made), edit, author, written);
}
