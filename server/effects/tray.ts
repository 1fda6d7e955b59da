import { parseEffectSteps, readKept, type Effect } from '@jinx/core/document';
import type { KeptState } from '@jinx/core/answers';
import type { Session } from '../database.ts';
import { notFound, Refusal } from '../errors.ts';
import { inTurns } from '../turns.ts';
import { textOf } from './memory.ts';

/** States of an effect that were put by. */
export async function trayOf(session: Session, effectId: string): Promise<KeptState[]> {
  const { rows } = await session.query<KeptState>(
    `select id, name, kept_at as "keptAt", author as by, seconds, picture is not null as "hasPicture"
     from tray where effect_id = $1 and deleted_at is null order by kept_at desc, id`,
    [effectId],
  );
  return rows;
}

/** Puts a state by; one that is sent twice is kept once. */
export async function putBy(
  session: Session,
  effectId: string,
  { id, name, document, seconds }: Pick<KeptState, 'id' | 'name' | 'seconds'> & { document: unknown },
  picture: Uint8Array | null,
  author: string,
): Promise<void> {
  const effect = await inTurns(parseEffectSteps(document));
  const { rowCount } = await session.query(
    `insert into tray (id, effect_id, name, document, seconds, picture, author) values ($1, $2, $3, $4, $5, $6, $7)
     on conflict do nothing`,
    [id, effectId, name, textOf(effect), seconds, picture ? Buffer.from(picture) : null, author],
  );
  if (rowCount === 1) return;
  const own = await session.query('select 1 from tray where id = $1 and effect_id = $2', [id, effectId]);
  if (own.rowCount === 0)
    throw new Refusal(409, 'known', 'A state of another effect has this id: put it by under another.');
}

export async function keptDocument(session: Session, id: string): Promise<Effect> {
  const { rows } = await session.query<{ document: string }>('select document from tray where id = $1', [id]);
  if (!rows[0]) throw notFound('state in the tray');
  return readKept(rows[0].document);
}

export async function keptPicture(session: Session, id: string): Promise<Buffer> {
  const { rows } = await session.query<{ picture: Buffer | null }>('select picture from tray where id = $1', [id]);
  if (!rows[0]?.picture) throw notFound('picture');
  return rows[0].picture;
}

export async function renameKept(session: Session, id: string, name: string): Promise<void> {
  const { rowCount } = await session.query('update tray set name = $2 where id = $1', [id, name]);
  if (rowCount === 0) throw notFound('state in the tray');
}
