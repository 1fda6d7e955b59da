import { createReadStream } from 'node:fs';
import { Readable } from 'node:stream';
import { parcelChoices, type Answer, type ParcelChoices } from '@jinx/core/answers';
import { readJson } from '@jinx/core/document';
import { z } from 'zod';
import { assetFile, assetOf } from '../assets.ts';
import { FILE_BODY, jsonOf } from '../body.ts';
import { inTransaction } from '../database.ts';
import { notFound, Refusal } from '../errors.ts';
import { mustBeWanted } from '../incoming.ts';
import {
  attachmentsFor,
  contentsOf,
  keepBones,
  newFigures,
  pageParts,
  sendParcel,
  takeParcel,
} from '../parcels/index.ts';
import { secondsFor } from '../workers/workers.ts';
import { announce } from './announce.ts';
import { answerFile, holdSlot } from './lasting.ts';
import { ownerOf, type Asked, type Route } from './route.ts';

/** What was chosen for a parcel, as JSON. */
function choicesIn(query: unknown): ParcelChoices {
  if (query === undefined) return { clashes: {}, figures: {} };
  const choices = parcelChoices.safeParse(readJson(String(query)));
  if (!choices.success) throw new Refusal(400, 'request', 'What was chosen for the parcel cannot be read.');
  return choices.data;
}

/** The ids of effects, as a list with commas. */
function idsIn(query: unknown): string[] {
  const ids = z
    .array(z.uuid())
    .max(1000)
    .safeParse(String(query ?? '').split(','));
  if (!ids.success) throw new Refusal(400, 'request', 'Which effects are to be handed over cannot be read.');
  return [...new Set(ids.data)];
}

/** Answers with effects of a project as one file: a parcel, or a page that plays them with all it needs in itself. */
async function answerEffects(asked: Asked, ids: readonly string[], as: 'parcel' | 'page'): Promise<void> {
  const { house, projectId } = asked;
  await holdSlot(house.exporting, asked);
  await sendParcel(house, projectId, ids, (file, size, name) =>
    as === 'parcel'
      ? answerFile(asked, `${name}.parcel.zip`, 'application/zip', createReadStream(file), size)
      : answerFile(asked, `${name}.html`, 'text/html', Readable.from(pageParts(file, name))),
  );
}

export const PARCELS: readonly Route[] = [
  {
    method: 'get',
    path: '/effects/:id/parcel',
    about: 'effect',
    isCostly: true,
    answer: (asked) => answerEffects(asked, [asked.id], 'parcel'),
  },
  {
    method: 'get',
    path: '/effects/:id/attachments',
    about: 'effect',
    isCostly: true,
    answer: async ({ house, context, id }) => {
      context.body = (await attachmentsFor(house, id)) satisfies Answer<'GET /effects/:id/attachments'>;
    },
  },
  {
    method: 'get',
    path: '/projects/:id/parcel',
    about: 'project',
    isCostly: true,
    answer: (asked) => answerEffects(asked, idsIn(asked.context.query['effects']), 'parcel'),
  },
  {
    method: 'get',
    path: '/projects/:id/page',
    about: 'project',
    isCostly: true,
    answer: (asked) => answerEffects(asked, idsIn(asked.context.query['effects']), 'page'),
  },
  {
    method: 'get',
    path: '/projects/:id/parcel/contents',
    about: 'project',
    answer: async ({ house, context, id }) => {
      const { effects, ...contents } = await contentsOf(house.database, id, idsIn(context.query['effects']));
      context.body = {
        ...contents,
        effects: effects.map(({ effect: _, ...each }) => each),
      } satisfies Answer<'GET /projects/:id/parcel/contents'>;
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
        const figures = await newFigures(house, id, parcel, folder);
        mustBeWanted(context);
        const { written, ...taken } = await inTransaction(house.database, (session) =>
          takeParcel(session, id, parcel, figures, choices, author),
        );
        announce(house, written);
        context.body = taken satisfies Answer<'POST /projects/:id/parcels'>;
        context.status = taken.isKnown ? 200 : 201;
      });
    },
  },
  {
    method: 'put',
    path: '/projects/:id/bones/:from',
    about: 'project',
    answer: async ({ house, context, id }) => {
      const from = context.params['from'] ?? '';
      const boneName = z.string().max(80);
      const { to, bones } = await jsonOf(
        context,
        z.strictObject({ to: z.string(), bones: z.record(boneName, boneName) }),
      );
      if (!/^[0-9a-f]{64}$/.test(from)) throw notFound('asset');
      const { kind } = await assetOf(house.database, id, to);
      if (kind !== 'rig') throw new Refusal(422, 'no-figure', 'Bones are those of a figure.');
      const has = await house.incoming.withFolder(async (folder) =>
        house.workers.run('bonesOf', { file: await assetFile(house.database, to, folder) }),
      );
      const stranger = Object.values(bones).find((bone) => !has.includes(bone));
      if (stranger !== undefined)
        throw new Refusal(422, 'no-bone', `The figure has no bone "${stranger}".`, { path: 'bones' });
      await keepBones(house.database, id, from, to, bones);
      context.status = 204;
    },
  },
];
