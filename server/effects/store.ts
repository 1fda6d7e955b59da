import { randomUUID } from 'node:crypto';
import type { EffectKin } from '@jinx/core/answers';
import { parseEffectSteps, type Effect } from '@jinx/core/document';
import { assetsOf, rigsOf } from '@jinx/core/formats';
import type { Session } from '../database.ts';
import { notFound, Refusal } from '../errors.ts';
import { inTurns } from '../turns.ts';
import { noteLinked } from './linked.ts';
import { documentFrom, documentOf, remember, textOf } from './memory.ts';

/** Where an effect stands. */
export interface Standing {
  readonly id: string;
  readonly projectId: string;
  readonly revision: number;
  /** The id of the edit that made this revision. */
  readonly head: string;
}

export interface StoredEffect extends Standing {
  readonly document: Effect;
}

const STANDING = 'id, project_id as "projectId", revision, head';

/** Where an effect stands; within a transaction that is to change it, nobody else changes it until that ends. */
export async function standingOf(session: Session, id: string, lock: '' | 'for update' = ''): Promise<Standing> {
  const { rows } = await session.query<Standing>(
    `select ${STANDING} from effects where id = $1 and deleted_at is null ${lock}`,
    [id],
  );
  if (!rows[0]) throw notFound('effect');
  return rows[0];
}

export async function loadEffect(session: Session, id: string): Promise<StoredEffect> {
  const { rows } = await session.query<Standing & { text: string }>(
    `select ${STANDING}, document as text from effects where id = $1 and deleted_at is null`,
    [id],
  );
  if (!rows[0]) throw notFound('effect');
  const { text, ...standing } = rows[0];
  return { ...standing, document: documentFrom(standing.head, text) };
}

/** How many particles may live at once in a project. */
export async function budgetOf(session: Session, projectId: string): Promise<number> {
  const { rows } = await session.query<{ budget: number }>(
    'select living_budget as budget from projects where id = $1',
    [projectId],
  );
  return rows[0]!.budget;
}

/** The effect that one keeps what it does not change of, if it does, and those that do so of it. */
export async function kinOf(
  session: Session,
  id: string,
): Promise<{ siblingOf: EffectKin | null; siblings: EffectKin[] }> {
  const of = await session.query<EffectKin>(
    'select id, name from effects where id = (select sibling_of from effects where id = $1) and deleted_at is null',
    [id],
  );
  const siblings = await session.query<EffectKin>(
    'select id, name from effects where sibling_of = $1 and deleted_at is null order by name, id',
    [id],
  );
  return { siblingOf: of.rows[0] ?? null, siblings: siblings.rows };
}

/**
 * Refuses an effect whose figures, props and pictures the project does not have; those that were taken away from it lately
 * come back. What it used before is known to be there.
 */
export async function mustHaveAssets(
  session: Session,
  projectId: string,
  effect: Effect,
  before: Effect | null = null,
): Promise<void> {
  const known = new Set(before ? assetsOf(before) : []);
  const wanted = assetsOf(effect).filter((hash) => !known.has(hash));
  if (wanted.length === 0) return;
  const { rows } = await session.query<{ hash: string }>(
    `update project_assets set deleted_at = null where project_id = $1 and hash = any($2) returning hash`,
    [projectId, wanted],
  );
  const missing = wanted.find((hash) => !rows.some((row) => row.hash === hash));
  if (missing !== undefined)
    throw new Refusal(
      422,
      'missing-asset',
      'This effect uses a figure, a prop or a picture that the project does not have: import it first.',
      { path: rigsOf(effect).includes(missing) ? 'stage.things' : 'looks' },
    );
}

/** What a new effect may have beside its document: the effect that it follows as a sibling, a licence of its own. */
interface NewEffect {
  readonly id?: string;
  readonly siblingOf?: string | null;
  readonly licence?: string;
}

export async function addEffect(
  session: Session,
  projectId: string,
  document: unknown,
  author: string,
  { id = randomUUID() as string, siblingOf = null, licence = '' }: NewEffect = {},
): Promise<StoredEffect> {
  const effect = await inTurns(parseEffectSteps(document));
  await mustHaveAssets(session, projectId, effect);
  const head = randomUUID();
  await session.query(
    `insert into effects (id, project_id, name, document, sibling_of, head, saved_by, licence)
     values ($1, $2, $3, $4, $5, $6, $7, $8)`,
    [id, projectId, effect.name, textOf(effect), siblingOf, head, author, licence],
  );
  await session.query(
    `insert into edits (id, effect_id, revision, changes, labels, author) values ($1, $2, 1, '[]', '{}', $3)`,
    [head, id, author],
  );
  await noteLinked(session, id, effect);
  // Should this be taken back, nothing ever asks for this head.
  remember(head, effect);
  return { id, projectId, revision: 1, head, document: effect };
}

/** Makes a sibling of an effect: it is the same but for its name, and keeps what it does not change. */
export async function addSibling(session: Session, id: string, name: string, author: string): Promise<StoredEffect> {
  const { projectId, head } = await standingOf(session, id);
  const document = await documentOf(session, id, head);
  return addEffect(session, projectId, { ...document, name }, author, { siblingOf: id });
}

/** A sibling that no longer follows; it stays as it is. What it has yet to take is taken before, see {@link followNow}. */
export async function letSiblingGo(session: Session, id: string): Promise<void> {
  const { rowCount } = await session.query(
    'update effects set sibling_of = null where id = $1 and deleted_at is null',
    [id],
  );
  if (rowCount === 0) throw notFound('effect');
}

/** Keeps the thumbnail of an effect, and which revision it shows. */
export async function keepPicture(
  session: Session,
  id: string,
  revision: number,
  picture: Uint8Array,
): Promise<void> {
  await session.query(
    'update effects set picture = $2, picture_revision = $3, pictures = pictures + 1 where id = $1',
    [id, Buffer.from(picture), revision],
  );
}
