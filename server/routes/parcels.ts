import { assetsOf, hashName, readParcel, writeParcel, type ParcelAsset } from '@jinx/core/formats';
import { keepAsset } from '../assets.ts';
import { bytesOf } from '../body.ts';
import { inTransaction } from '../database.ts';
import { addEffect, loadEffect } from '../effects/index.ts';
import type { Route } from './route.ts';

const MOST_FILE = 128 * 1024 * 1024;

export const PARCELS: readonly Route[] = [
  {
    method: 'get',
    path: '/effects/:id/parcel',
    about: 'effect',
    answer: async ({ house, context, id }) => {
      const effect = await loadEffect(house.database, id);
      const { rows } = await house.database.query<ParcelAsset>(
        'select hash, name, kind, bytes from project_assets join assets using (hash) where project_id = $1 and hash = any($2)',
        [effect.projectId, assetsOf(effect.document)],
      );
      context.type = 'application/zip';
      context.attachment(`${effect.document.name}.parcel.zip`);
      context.body = Buffer.from(
        writeParcel(
          effect.document,
          rows.map((row) => ({ ...row, bytes: new Uint8Array(row.bytes) })),
        ),
      );
    },
  },
  {
    method: 'post',
    path: '/projects/:id/parcels',
    about: 'project',
    answer: async ({ house, context, id, author }) => {
      const parcel = readParcel(await bytesOf(context, MOST_FILE));
      context.body = await inTransaction(house.database, async (session) => {
        for (const asset of parcel.assets) await keepAsset(session, id, { ...asset, hash: hashName(asset.bytes) });
        const { id: effectId, revision } = await addEffect(session, id, parcel.effect, author);
        return { id: effectId, revision, name: parcel.effect.name };
      });
      context.status = 201;
    },
  },
];
