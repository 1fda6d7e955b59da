import { randomUUID } from 'node:crypto';
import type { Answer, Unsent } from '@jinx/core/answers';
import { z } from 'zod';
import { DOCUMENT_BODY, jsonOf } from '../body.ts';
import {
  keptDocument,
  keptPicture,
  loadRevision,
  nameRevision,
  putBy,
  renameKept,
  revisionsOf,
  trayOf,
} from '../effects/index.ts';
import { notFound, Refusal } from '../errors.ts';
import type { House } from '../house.ts';
import { mustBeThumbnail } from '../thumbnails.ts';
import { answerLasting } from './lasting.ts';
import { nameOf } from './names.ts';
import type { Asked, Route } from './route.ts';

function revisionIn({ context }: Asked): number {
  const revision = Number(context.params['revision']);
  if (!Number.isSafeInteger(revision) || revision > 0x7fffffff) throw notFound('revision');
  return revision;
}

/** Letters of a picture at most: a megabyte of it. */
const MOST_PICTURE = 1_400_000;
const keptSchema = z.strictObject({
  id: z.uuid().optional(),
  name: nameOf('a state'),
  seconds: z.number().min(0).max(100_000),
  document: z.unknown(),
  /** A PNG, as base64. */
  picture: z.base64().max(MOST_PICTURE).nullable(),
});

async function pictureOf(house: House, base64: string): Promise<Uint8Array> {
  const bytes = new Uint8Array(Buffer.from(base64, 'base64'));
  if (bytes[0] !== 0x89) throw new Refusal(400, 'request', 'The picture of a state is a PNG.', { path: 'picture' });
  await mustBeThumbnail(house, bytes);
  return bytes;
}

export const HISTORY: readonly Route[] = [
  {
    method: 'get',
    path: '/effects/:id/revisions',
    about: 'effect',
    answer: async ({ house, context, id }) => {
      const revisions = await revisionsOf(house.database, id);
      context.body = revisions satisfies Unsent<Answer<'GET /effects/:id/revisions'>>;
    },
  },
  {
    method: 'get',
    path: '/effects/:id/revisions/:revision',
    about: 'effect',
    answer: async (asked) => {
      const document = await loadRevision(asked.house.database, asked.id, revisionIn(asked));
      asked.context.body = { document } satisfies Answer<'GET /effects/:id/revisions/:revision'>;
    },
  },
  {
    method: 'patch',
    path: '/effects/:id/revisions/:revision',
    about: 'effect',
    answer: async (asked) => {
      const { name } = await jsonOf(asked.context, z.strictObject({ name: nameOf('a revision').nullable() }));
      await nameRevision(asked.house.database, asked.id, revisionIn(asked), name);
      asked.context.status = 204;
    },
  },
  {
    method: 'get',
    path: '/effects/:id/tray',
    about: 'effect',
    answer: async ({ house, context, id }) => {
      context.body = (await trayOf(house.database, id)) satisfies Unsent<Answer<'GET /effects/:id/tray'>>;
    },
  },
  {
    method: 'post',
    path: '/effects/:id/tray',
    about: 'effect',
    answer: async ({ house, context, id, projectId, author }) => {
      const { picture, ...kept } = await jsonOf(context, keptSchema, DOCUMENT_BODY, MOST_PICTURE);
      await house.quota.mustHaveRoom(house.database, projectId, Number(context.get('Content-Length')) || 0);
      const state = { ...kept, id: kept.id ?? randomUUID(), document: kept.document };
      await putBy(house.database, id, state, picture === null ? null : await pictureOf(house, picture), author);
      context.body = { id: state.id } satisfies Answer<'POST /effects/:id/tray'>;
      context.status = 201;
    },
  },
  {
    method: 'get',
    path: '/tray/:id',
    about: 'kept',
    answer: async ({ house, context, id }) => {
      context.body = { document: await keptDocument(house.database, id) } satisfies Answer<'GET /tray/:id'>;
    },
  },
  {
    method: 'get',
    path: '/tray/:id/picture',
    about: 'kept',
    answer: async (asked) => {
      answerLasting(asked, 'image/png', await keptPicture(asked.house.database, asked.id));
    },
  },
  {
    method: 'patch',
    path: '/tray/:id',
    about: 'kept',
    answer: async ({ house, context, id }) => {
      const { name } = await jsonOf(context, z.strictObject({ name: nameOf('a state') }));
      await renameKept(house.database, id, name);
      context.status = 204;
    },
  },
];
