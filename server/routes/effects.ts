import type { Answer, Unsent } from '@jinx/core/answers';
import { effectSchema, isPlainText } from '@jinx/core/document';
import { z } from 'zod';
import { DOCUMENT_BODY, jsonOf } from '../body.ts';
import { inTransaction } from '../database.ts';
import {
  addSibling,
  changedSince,
  followingOf,
  budgetOf,
  followNow,
  keepPicture,
  kinOf,
  letSiblingGo,
  loadEffect,
  takeEdits,
  type Written,
} from '../effects/index.ts';
import { notFound, Refusal } from '../errors.ts';
import { thumbnailIn } from '../thumbnails.ts';
import { announce } from './announce.ts';
import { answerThumbnail } from './lasting.ts';
import { nameOf } from './names.ts';
import type { Route } from './route.ts';

/** What columns of revisions hold. */
export const MOST_REVISION = 0x7fffffff;
/** Changes of one request, whatever edits they are in. */
const MOST_CHANGES = 20_000;

/** An edit of fewer bytes is taken also where a project has no room left: work is never held up by it. */
const FREE_OF_QUOTA = 64 * 1024;

/** Names that lead into what every object has are no names of parts of a document. */
const partName = z
  .string()
  .max(80)
  .refine((name) => !(name in Object.prototype) && name !== 'prototype', 'no part has this name');
/** What an edit may change: all of an effect but which schema it has. */
const FIELDS = new Set(Object.keys(effectSchema.shape).filter((field) => field !== 'schema'));
const changeSchema = z.strictObject({
  path: z
    .array(partName)
    .min(1)
    .max(64)
    .refine(([field]) => FIELDS.has(field ?? ''), {
      error: ({ input }) => `an effect has no part "${String((input as unknown[])[0])}"`,
    }),
  before: z.unknown().optional(),
  after: z.unknown().optional(),
});
const editSchema = z.strictObject({
  id: z.uuid(),
  changes: z.array(changeSchema).min(1).max(MOST_CHANGES),
  labels: z.array(z.string().max(200).refine(isPlainText, 'a label has only characters that can be shown')).max(100),
});
const revision = z.number().int().min(1).max(MOST_REVISION);
const editsSchema = z.strictObject({
  revision,
  head: z.uuid(),
  edits: z
    .array(editSchema)
    .min(1)
    .max(16)
    .refine(
      (edits) => edits.reduce((sum, { changes }) => sum + changes.length, 0) <= MOST_CHANGES,
      `up to ${MOST_CHANGES} changes are taken at once`,
    )
    .refine((edits) => new Set(edits.map(({ id }) => id)).size === edits.length, 'each edit has an id of its own'),
});

export const EFFECTS: readonly Route[] = [
  {
    method: 'get',
    path: '/effects/:id',
    about: 'effect',
    answer: async ({ house, context, id }) => {
      const following = await followingOf(house.database, id);
      const stored = await loadEffect(house.database, id);
      context.body = {
        ...stored,
        livingBudget: await budgetOf(house.database, stored.projectId),
        ...(await kinOf(house.database, id)),
        following,
      } satisfies Answer<'GET /effects/:id'>;
    },
  },
  {
    method: 'post',
    path: '/effects/:id/edits',
    about: 'effect',
    answer: async ({ house, context, id, projectId, author }) => {
      const edits = await jsonOf(context, editsSchema, DOCUMENT_BODY);
      const size = Number(context.get('Content-Length')) || 0;
      if (size > FREE_OF_QUOTA) await house.quota.mustHaveRoom(house.database, projectId, size);
      const { written, ...taken } = await inTransaction(house.database, (session) =>
        takeEdits(session, id, edits, author),
      );
      announce(house, written);
      const following = await followingOf(house.database, id);
      context.body = { ...taken, following } satisfies Unsent<Answer<'POST /effects/:id/edits'>>;
    },
  },
  {
    method: 'get',
    path: '/effects/:id/edits',
    about: 'effect',
    answer: async ({ house, context, id }) => {
      const since = z
        .object({ revision: z.coerce.number().pipe(revision), head: z.uuid() })
        .safeParse({ revision: context.query['revision'], head: context.query['head'] });
      if (!since.success) throw new Refusal(400, 'request', 'Say since which revision, and its head.');
      const changed = await changedSince(house.database, id, since.data.revision, since.data.head);
      context.body = changed satisfies Unsent<Answer<'GET /effects/:id/edits'>>;
    },
  },
  {
    method: 'post',
    path: '/effects/:id/siblings',
    about: 'effect',
    answer: async ({ house, context, id, projectId, author }) => {
      const { name } = await jsonOf(context, z.strictObject({ name: nameOf('an effect') }));
      await house.quota.mustHaveRoom(house.database, projectId, 0);
      const made = await inTransaction(house.database, (session) => addSibling(session, id, name, author));
      context.body = { id: made.id, name } satisfies Answer<'POST /effects/:id/siblings'>;
      context.status = 201;
    },
  },
  {
    method: 'delete',
    path: '/effects/:id/sibling',
    about: 'effect',
    answer: async ({ house, context, id }) => {
      const written: Written = new Map();
      await inTransaction(house.database, async (session) => {
        await followNow(session, id, written);
        await letSiblingGo(session, id);
      });
      announce(house, written);
      context.status = 204;
    },
  },
  {
    method: 'get',
    path: '/effects/:id/picture',
    about: 'effect',
    answer: async (asked) => {
      const { rows } = await asked.house.database.query<{ picture: Buffer | null }>(
        'select picture from effects where id = $1',
        [asked.id],
      );
      if (!rows[0]?.picture) throw notFound('picture');
      answerThumbnail(asked, rows[0].picture);
    },
  },
  {
    method: 'put',
    path: '/effects/:id/picture',
    about: 'effect',
    answer: async ({ house, context, id }) => {
      const shows = revision.safeParse(Number(context.query['revision']));
      if (!shows.success) throw new Refusal(400, 'request', 'A picture names the revision it shows.');
      await keepPicture(house.database, id, shows.data, await thumbnailIn(house, context));
      context.status = 204;
    },
  },
];
