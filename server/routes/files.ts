import { MOST_TONE_LETTERS, readToneTable } from '@jinx/core/formats';
import { bytesOf, type BodyLimit } from '../body.ts';
import { inTransaction, type Session } from '../database.ts';
import { notFound, Refusal } from '../errors.ts';
import { setTone } from '../tone.ts';
import { nameOf } from './names.ts';
import type { Asked, Route } from './route.ts';

/** A picture or a short video to compare with, or a tone table. */
const PROJECT_FILE_BODY: BodyLimit = { bytes: 32 * 1024 * 1024, seconds: 120 };

/** What may be kept for each purpose, and what it is checked by. */
const PURPOSES: Readonly<Record<string, { readonly types: readonly string[]; check?: (bytes: Uint8Array) => void }>> =
  {
    reference: { types: ['image/png', 'image/jpeg', 'image/webp', 'video/mp4', 'video/webm'] },
    tone: {
      types: ['text/plain'],
      check: (bytes) => {
        if (bytes.length > MOST_TONE_LETTERS) throw new Refusal(413, 'too-large', 'The tone table is too long.');
        readToneTable(new TextDecoder().decode(bytes));
      },
    },
  };

function purposeIn({ context }: Asked) {
  const purpose = context.params['purpose'] ?? '';
  const rules = PURPOSES[purpose];
  if (!rules) throw notFound('file');
  return { purpose, ...rules };
}

/** @throws Refusal where a project keeps no file for a purpose. */
export async function mustKeepFile(database: Session, projectId: string, purpose: string): Promise<void> {
  const { rowCount } = await database.query('select 1 from project_files where project_id = $1 and purpose = $2', [
    projectId,
    purpose,
  ]);
  if (!rowCount)
    throw new Refusal(422, 'file.none', `This project keeps no file for that: bring one first (${purpose}).`);
}

/** Files that a project keeps one of for each purpose. */
export const FILES: readonly Route[] = [
  {
    method: 'get',
    path: '/projects/:id/files/:purpose',
    about: 'project',
    answer: async (asked) => {
      const { purpose } = purposeIn(asked);
      const { rows } = await asked.house.database.query<{ name: string; type: string; content: Buffer }>(
        'select name, type, content from project_files where project_id = $1 and purpose = $2',
        [asked.id, purpose],
      );
      const [file] = rows;
      if (!file) throw notFound('file');
      asked.context.attachment(file.name);
      asked.context.type = file.type;
      asked.context.body = file.content;
    },
  },
  {
    method: 'put',
    path: '/projects/:id/files/:purpose',
    about: 'project',
    isCostly: true,
    answer: async (asked) => {
      const { house, context, id } = asked;
      const { purpose, types, check } = purposeIn(asked);
      const name = nameOf('a file').safeParse(context.query['name']);
      if (!name.success) throw new Refusal(400, 'request', name.error.issues[0]!.message, { path: 'name' });
      const type = String(context.query['type']);
      if (!types.includes(type))
        throw new Refusal(415, 'file.type', `${name.data} cannot be kept here: only ${types.join(', ')} can.`);
      await house.quota.mustHaveRoom(house.database, id, Number(context.get('Content-Length')) || 0);
      const bytes = await bytesOf(context, PROJECT_FILE_BODY);
      check?.(bytes);
      await inTransaction(house.database, async (database) => {
        await database.query(
          `insert into project_files (project_id, purpose, name, type, content) values ($1, $2, $3, $4, $5)
           on conflict (project_id, purpose) do update set name = excluded.name, type = excluded.type,
             content = excluded.content, kept_at = now()`,
          [id, purpose, name.data, type, bytes],
        );
        if (purpose === 'tone') await setTone(database, id, 'table');
      });
      context.status = 204;
    },
  },
  {
    method: 'delete',
    path: '/projects/:id/files/:purpose',
    about: 'project',
    answer: async (asked) => {
      const { purpose } = purposeIn(asked);
      const { house, id } = asked;
      await inTransaction(house.database, async (database) => {
        await database.query('delete from project_files where project_id = $1 and purpose = $2', [id, purpose]);
        if (purpose === 'tone') await setTone(database, id, 'filmic', 'table');
      });
      asked.context.status = 204;
    },
  },
];
