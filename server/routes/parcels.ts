import { createReadStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import { parcelChoice, type Answer } from '@jinx/core/answers';
import { readJson } from '@jinx/core/document';
import { z } from 'zod';
import { FILE_BODY } from '../body.ts';
import { inTransaction } from '../database.ts';
import { loadEffect } from '../effects/index.ts';
import { Refusal } from '../errors.ts';
import { sendParcel } from '../export.ts';
import { takeParcel, type ParcelChoices } from '../parcels.ts';
import { secondsFor } from '../workers/workers.ts';
import { announce } from './announce.ts';
import { holdSlot } from './lasting.ts';
import { ownerOf, type Route } from './route.ts';

const choicesSchema = z.record(z.string().max(64), parcelChoice);
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
    answer: async (asked) => {
      const { house, context, id } = asked;
      const { projectId, document } = await loadEffect(house.database, id);
      await holdSlot(house.exporting, asked);
      await sendParcel(house, projectId, document, async (file, size) => {
        context.type = 'application/zip';
        context.attachment(`${document.name}.parcel.zip`);
        context.length = size;
        context.respond = false;
        context.res.statusCode = 200;
        await pipeline(createReadStream(file), context.res);
      });
    },
  },
  {
    method: 'post',
    path: '/projects/:id/parcels',
    about: 'project',
    isCostly: true,
    answer: async (asked) => {
      const { house, context, id, author } = asked;
      const choices = choicesIn(context.query['choices']);
      await house.incoming.withUpload(context, ownerOf(asked), FILE_BODY, async ({ file, folder, size }) => {
        const parcel = await house.workers.run('importParcel', { file, folder }, secondsFor(size));
        const unpacked = parcel.assets.reduce((sum, asset) => sum + asset.size, 0);
        await house.quota.mustHaveRoom(house.database, id, unpacked);
        const { written, ...taken } = await inTransaction(house.database, (session) =>
          takeParcel(session, id, parcel, choices, author),
        );
        announce(house, written);
        context.body = taken satisfies Answer<'POST /projects/:id/parcels'>;
        context.status = taken.isKnown ? 200 : 201;
      });
    },
  },
];
