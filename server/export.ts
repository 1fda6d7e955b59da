import path from 'node:path';
import { createWriteStream } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Effect } from '@jinx/core/document';
import { assetsOf, MOST_PARCEL_ASSETS, MOST_PARCEL_UNPACKED, type AssetKind } from '@jinx/core/formats';
import { assetSlices } from './assets.ts';
import { Refusal } from './errors.ts';
import type { House } from './house.ts';
import { noParcel, type FileAsset } from './workers/tasks.ts';
import { secondsFor } from './workers/workers.ts';

const megabytes = (bytes: number): number => Math.round(bytes / 1048576);

const cannotBeImported = (why: string) => new Refusal(422, 'parcel.large', noParcel(why));

/**
 * Makes a parcel of an effect with all it uses, in a file, and hands it to `send`.
 * @throws Refusal where it could not be imported again, with the reason.
 */
export async function sendParcel(
  { database, incoming, workers }: House,
  projectId: string,
  document: Effect,
  send: (file: string, size: number) => Promise<void>,
): Promise<void> {
  const { rows } = await database.query<{ hash: string; name: string; kind: AssetKind; size: string }>(
    'select hash, name, kind, size from project_assets join assets using (hash) where project_id = $1 and hash = any($2)',
    [projectId, assetsOf(document)],
  );
  if (rows.length > MOST_PARCEL_ASSETS)
    throw cannotBeImported(`it uses ${rows.length} files, and a parcel holds up to ${MOST_PARCEL_ASSETS}`);
  const total = rows.reduce((sum, { size }) => sum + Number(size), 0);
  if (total > MOST_PARCEL_UNPACKED)
    throw cannotBeImported(
      `its files take ${megabytes(total)} MB, and a parcel holds up to ${megabytes(MOST_PARCEL_UNPACKED)} MB`,
    );
  await incoming.withFolder(async (folder) => {
    const assets: FileAsset[] = [];
    for (const { size, ...asset } of rows) {
      const file = path.join(folder, `${asset.hash}.part`);
      await pipeline(Readable.from(assetSlices(database, asset.hash)), createWriteStream(file, { mode: 0o600 }));
      assets.push({ ...asset, file, size: Number(size) });
    }
    const file = path.join(folder, 'parcel.part');
    const size = await workers.run('exportParcel', { document, assets, file }, secondsFor(total));
    await send(file, size);
  });
}
