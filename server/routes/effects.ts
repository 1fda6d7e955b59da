import { readPicture } from '@jinx/core/formats';
import { z } from 'zod';
import { bytesOf, jsonOf } from '../body.ts';
import { inTransaction } from '../database.ts';
import { addSibling, changedSince, kinOf, letSiblingGo, loadEffect, takeEdits } from '../effects/index.ts';
import { notFound, Refusal } from '../errors.ts';
import { announce } from './announce.ts';
import { answerLasting } from './lasting.ts';
import { nameOf } from './names.ts';
import type { Route } from './route.ts';

const MOST_PICTURE = 1024 * 1024;

/** Names that lead into what every object has are no names of parts of a document. */
const partName = z
  .string()
  .max(80)
  .refine((name) => name !== '__proto__' && name !== 'constructor' && name !== 'prototype', 'no part has this name');
const changeSchema = z.strictObject({
  path: z.array(partName).min(1).max(64),
  before: z.unknown().optional(),
  after: z.unknown().optional(),
});
const editSchema = z.strictObject({
  id: z.uuid(),
  changes: z.array(changeSchema).min(1).max(20_000),
  labels: z.array(z.string().max(200)).max(100),
});
const editsSchema = z.strictObject({
  revision: z.number().int().min(1),
  head: z.uuid(),
  edits: z.array(editSchema).min(1).max(16),
});

export const EFFECTS: readonly Route[] = [
  {
    method: 'get',
    path: '/effects/:id',
    about: 'effect',
    answer: async ({ house, context, id }) => {
      context.body = { ...(await loadEffect(house.database, id)), ...(await kinOf(house.database, id)) };
    },
  },
  {
    method: 'post',
    path: '/effects/:id/edits',
    about: 'effect',
    answer: async ({ house, context, id, author }) => {
      const edits = await jsonOf(context, editsSchema);
      const { written, ...taken } = await inTransaction(house.database, (session) =>
        takeEdits(session, id, edits, author),
      );
      announce(house, written);
      context.body = taken;
    },
  },
  {
    method: 'get',
    path: '/effects/:id/edits',
    about: 'effect',
    answer: async ({ house, context, id }) => {
      const since = z
        .object({ revision: z.coerce.number().int(), head: z.uuid() })
        .safeParse({ revision: context.query['revision'], head: context.query['head'] });
      if (!since.success) throw new Refusal(400, 'request', 'Say since which revision, and its head.');
      context.body = await changedSince(house.database, id, since.data.revision, since.data.head);
    },
  },
  {
    method: 'post',
    path: '/effects/:id/siblings',
    about: 'effect',
    answer: async ({ house, context, id, author }) => {
      const { name } = await jsonOf(context, z.strictObject({ name: nameOf('an effect') }));
      const made = await inTransaction(house.database, (session) => addSibling(session, id, name, author));
      context.body = { id: made.id, name };
      context.status = 201;
    },
  },
  {
    method: 'delete',
    path: '/effects/:id/sibling',
    about: 'effect',
    answer: async ({ house, context, id }) => {
      await letSiblingGo(house.database, id);
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
      answerLasting(asked, 'image/png', rows[0].picture);
    },
  },
  {
    method: 'put',
    path: '/effects/:id/picture',
    about: 'effect',
    answer: async ({ house, context, id }) => {
      const revision = Number(context.query['revision']);
      if (!Number.isInteger(revision) || revision < 1)
        throw new Refusal(400, 'request', 'A picture names the revision it shows.');
      const bytes = await bytesOf(context, MOST_PICTURE);
      readPicture(bytes);
      await house.database.query('update effects set picture = $2, picture_revision = $3 where id = $1', [
        id,
        Buffer.from(bytes),
        revision,
      ]);
      context.status = 204;
    },
  },
];
