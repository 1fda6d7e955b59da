import { z } from 'zod';
import { assetBytes, assetUsers, keepAsset, setAssetDeleted } from '../assets.ts';
import { bytesOf, jsonOf } from '../body.ts';
import { inTransaction } from '../database.ts';
import { notFound, Refusal } from '../errors.ts';
import { kitAsset, kitFiles } from '../kit.ts';
import { START_INSTANTS, STARTS } from '@jinx/demo';
import { answerLasting } from './lasting.ts';
import type { Asked, Route } from './route.ts';

const MOST_FILE = 128 * 1024 * 1024;

const fileName = (query: unknown): string =>
  typeof query === 'string' && query.length > 0 ? query.slice(0, 200) : 'figure.glb';

function hashIn({ context }: Asked): string {
  const hash = context.params['hash'] ?? '';
  if (!/^[0-9a-f]{64}$/.test(hash)) throw notFound('asset');
  return hash;
}

export const ASSETS: readonly Route[] = [
  {
    method: 'get',
    path: '/kit',
    about: null,
    answer: ({ context }) => {
      context.body = kitFiles();
    },
  },
  {
    method: 'get',
    path: '/starts',
    about: null,
    answer: ({ context }) => {
      context.body = STARTS.map(({ id, intent, about, rest }) => ({
        id,
        intent,
        about,
        rest,
        instants: START_INSTANTS,
      }));
    },
  },
  {
    method: 'get',
    path: '/assets/:hash',
    about: null,
    answer: async (asked) => {
      const bytes = await assetBytes(asked.house.database, hashIn(asked), asked.person);
      if (!bytes) throw notFound('asset');
      answerLasting(asked, 'application/octet-stream', bytes);
    },
  },
  {
    method: 'post',
    path: '/projects/:id/assets',
    about: 'project',
    isCostly: true,
    answer: async ({ house, context, id }) => {
      const asset = await house.importer.file(await bytesOf(context, MOST_FILE), fileName(context.query['name']));
      context.body = await inTransaction(house.database, (session) => keepAsset(session, id, asset));
      context.status = 201;
    },
  },
  {
    method: 'post',
    path: '/projects/:id/kit',
    about: 'project',
    isCostly: true,
    answer: async ({ house, context, id }) => {
      const { file } = await jsonOf(context, z.strictObject({ file: z.string() }));
      const asset = await kitAsset(file);
      context.body = await inTransaction(house.database, (session) => keepAsset(session, id, asset));
      context.status = 201;
    },
  },
  {
    method: 'delete',
    path: '/projects/:id/assets/:hash',
    about: 'project',
    answer: async (asked) => {
      const { house, context, id } = asked;
      const hash = hashIn(asked);
      const users = await assetUsers(house.database, id, hash);
      if (users.length > 0)
        throw new Refusal(409, 'in-use', `${users.join(', ')} would lack it: take it out of there first.`);
      await setAssetDeleted(house.database, id, hash, true);
      context.status = 204;
    },
  },
  {
    method: 'post',
    path: '/projects/:id/assets/:hash/restore',
    about: 'project',
    answer: async (asked) => {
      await setAssetDeleted(asked.house.database, asked.id, hashIn(asked), false);
      asked.context.status = 204;
    },
  },
];
