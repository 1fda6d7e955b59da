import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import path from 'node:path';
import { Readable } from 'node:stream';
import type { Answer } from '@jinx/core/answers';
import { z } from 'zod';
import { isPlainText } from '@jinx/core/document';
import { hashName, licenceSchema } from '@jinx/core/formats';
import {
  assetFile,
  assetOf,
  assetSize,
  assetSlices,
  assetUsers,
  keepAsset,
  keepThumbnail,
  setAssetDeleted,
  setAssetLicence,
  thumbnailOf,
} from '../assets.ts';
import { FILE_BODY, jsonOf } from '../body.ts';
import { inTransaction } from '../database.ts';
import { notFound, Refusal } from '../errors.ts';
import { mustBeWanted } from '../incoming.ts';
import { kitAsset, kitFiles, kitThumbnail } from '../kit.ts';
import { thumbnailIn } from '../thumbnails.ts';
import { START_INSTANTS, STARTS } from '@jinx/demo';
import { answerFile, answerLasting, answerThumbnail, holdSlot } from './lasting.ts';
import { secondsFor } from '../workers/workers.ts';
import { ownerOf, type Asked, type Route } from './route.ts';

function fileName(query: unknown): string {
  const name = typeof query === 'string' && query.length > 0 ? query.slice(0, 200) : 'figure.glb';
  if (!isPlainText(name))
    throw new Refusal(400, 'letters', 'The name of the file has characters that cannot be kept.');
  return name;
}

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
      context.body = kitFiles() satisfies Answer<'GET /kit'>;
    },
  },
  {
    method: 'get',
    path: '/kit/:file/thumbnail',
    about: null,
    answer: (asked) => answerThumbnail(asked, kitThumbnail(asked.context.params['file'] ?? '')),
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
      })) satisfies Answer<'GET /starts'>;
    },
  },
  {
    method: 'get',
    path: '/assets/:hash',
    about: null,
    answer: async (asked) => {
      const { house, context, person } = asked;
      const hash = hashIn(asked);
      const size = await assetSize(house.database, hash, person);
      if (size === null) throw notFound('asset');
      await holdSlot(house.reading, asked);
      answerLasting(asked, 'application/octet-stream', Readable.from(assetSlices(house.database, hash)));
      context.length = size;
    },
  },
  {
    method: 'post',
    path: '/projects/:id/assets',
    about: 'project',
    isCostly: true,
    answer: async (asked) => {
      const { house, context, id } = asked;
      const name = fileName(context.query['name']);
      await house.incoming.withUpload(context, ownerOf(asked), FILE_BODY, async ({ file, folder, size }) => {
        const asset = await house.workers.run('importFile', { file, name, folder }, secondsFor(size));
        mustBeWanted(context);
        await house.quota.mustHaveRoom(house.database, id, asset.size + size);
        const original = { name, hash: asset.originalHash, content: file };
        const kept = { ...asset, content: asset.file, original };
        const summary = await inTransaction(house.database, (session) => keepAsset(session, id, kept));
        context.body = summary satisfies Answer<'POST /projects/:id/assets'>;
        context.status = 201;
      });
    },
  },
  {
    method: 'post',
    path: '/projects/:id/kit',
    about: 'project',
    isCostly: true,
    answer: async ({ house, context, id }) => {
      const { file } = await jsonOf(context, z.strictObject({ file: z.string() }));
      const { bytes, brought, ...asset } = await kitAsset(file);
      await house.quota.mustHaveRoom(house.database, id, bytes.length + brought.length);
      const original = { name: file, hash: hashName(brought), content: brought };
      const kept = { ...asset, content: bytes, original };
      const summary = await inTransaction(house.database, (session) => keepAsset(session, id, kept));
      context.body = summary satisfies Answer<'POST /projects/:id/kit'>;
      context.status = 201;
    },
  },
  {
    method: 'get',
    path: '/projects/:id/assets/:hash/thumbnail',
    about: 'project',
    answer: async (asked) => answerThumbnail(asked, await thumbnailOf(asked.house.database, asked.id, hashIn(asked))),
  },
  {
    method: 'put',
    path: '/projects/:id/assets/:hash/thumbnail',
    about: 'project',
    answer: async (asked) => {
      const { house, context, id } = asked;
      await keepThumbnail(house.database, id, hashIn(asked), await thumbnailIn(house, context));
      context.status = 204;
    },
  },
  {
    method: 'get',
    path: '/projects/:id/assets/:hash/original',
    about: 'project',
    answer: async (asked) => {
      const { house, context, id } = asked;
      const { original, originalName } = await assetOf(house.database, id, hashIn(asked));
      if (original === null)
        throw new Refusal(404, 'no-original', 'The file that this was imported from was not kept then.');
      await holdSlot(house.reading, asked);
      context.attachment(originalName ?? 'original');
      context.type = 'application/octet-stream';
      context.body = Readable.from(assetSlices(house.database, original));
    },
  },
  {
    method: 'get',
    path: '/projects/:id/assets/:hash/open',
    about: 'project',
    isCostly: true,
    answer: async (asked) => {
      const { house, id } = asked;
      const hash = hashIn(asked);
      const { name, kind } = await assetOf(house.database, id, hash);
      await holdSlot(house.exporting, asked);
      await house.incoming.withFolder(async (folder) => {
        const into = path.join(folder, 'open.part');
        const file = await assetFile(house.database, hash, folder);
        const { size: bytes } = await stat(file);
        const size = await house.workers.run('openAsset', { kind, file, into }, secondsFor(bytes));
        const [ending, type] = kind === 'rig' ? ['glb', 'model/gltf-binary'] : ['png', 'image/png'];
        await answerFile(asked, `${name}.${ending}`, type, createReadStream(into), size);
      });
    },
  },
  {
    method: 'patch',
    path: '/projects/:id/assets/:hash',
    about: 'project',
    answer: async (asked) => {
      const { house, context, id } = asked;
      const { licence } = await jsonOf(context, z.strictObject({ licence: licenceSchema }));
      await setAssetLicence(house.database, id, hashIn(asked), licence);
      context.status = 204;
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
