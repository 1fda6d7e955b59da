import { readJson } from '@jinx/core/document';
import { assetsOf, writeParcel, type ParcelAsset } from '@jinx/core/formats';
import { z } from 'zod';
import { bytesOf } from '../body.ts';
import { inTransaction } from '../database.ts';
import { loadEffect } from '../effects/index.ts';
import { Refusal } from '../errors.ts';
import { takeParcel, type ParcelChoices } from '../parcels.ts';
import { announce } from './announce.ts';
import type { Route } from './route.ts';

const MOST_FILE = 128 * 1024 * 1024;

const choicesSchema = z.record(z.string().max(64), z.enum(['both', 'over', 'present']));
/** What was chosen for what has the name of something else, as JSON. */
function choicesIn(query: unknown): ParcelChoices {
  if (query === undefined) return {};
  const choices = choicesSchema.safeParse(readJson(String(query)));
  if (!choices.success) throw new Refusal(400, 'request', 'What was chosen for the parcel cannot be read.');
  return choices.data;
}

export const PARCELS: readonly Route[] = [
  {
    method: 'get',
    path: '/effects/:id/parcel',
    about: 'effect',
    isCostly: true,
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
    isCostly: true,
    answer: async ({ house, context, id, author }) => {
      const choices = choicesIn(context.query['choices']);
      const parcel = await house.importer.parcel(await bytesOf(context, MOST_FILE));
      const { written, ...taken } = await inTransaction(house.database, (session) =>
        takeParcel(session, id, parcel, choices, author),
      );
      announce(house, written);
      context.body = taken;
      context.status = taken.isKnown ? 200 : 201;
    },
  },
];
