import { randomUUID } from 'node:crypto';
import { canonicalText, parseEffect, type Effect } from '@jinx/core/document';
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

export async function addEffect(session: Session, projectId: string, document: unknown): Promise<StoredEffect> {
  const effect = parseEffect(document);
  await mustHaveAssets(session, projectId, effect);
  const id = randomUUID();
  await session.query('insert into effects (id, project_id, name, document) values ($1, $2, $3, $4)', [
    id,
    projectId,
    effect.name,
    canonicalText(effect),
  ]);
  return { id, projectId, revision: 1, document: effect };
}

/**
 * Saves over the revision the change was made from. A save made from an older one is kept apart and refused with what
 * stands now, so that nobody's work is lost.
 */
export async function saveEffect(
  session: Session,
  id: string,
  revision: number,
  document: unknown,
): Promise<number | StoredEffect> {
  const effect = parseEffect(document);
  const text = canonicalText(effect);
  const { rows } = await session.query<Row>('select * from effects where id = $1 for update', [id]);
  const row = rows[0];
  if (!row) throw notFound('effect');
  await mustHaveAssets(session, row.project_id, effect);
  if (row.revision !== revision) {
    if (row.document === text) return row.revision;
    await session.query('insert into refused_saves (id, effect_id, made_from, document) values ($1, $2, $3, $4)', [
      randomUUID(),
      id,
      revision,
      text,
    ]);
    return stored(row);
  }
  await session.query(
    'update effects set name = $2, document = $3, revision = revision + 1, saved_at = now() where id = $1',
    [id, effect.name, text],
  );
  return revision + 1;
}
