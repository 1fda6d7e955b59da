import { assetsOf, type Attachments } from '@jinx/core/formats';
import { assetFiles, type AssetRow } from '../assets.ts';
import { loadEffect } from '../effects/index.ts';
import type { House } from '../house.ts';

/** Seconds that measuring an effect may take beside the usual. */
const MORE_SECONDS = 100;

/** What a game has to know of an effect, measured as it plays. */
export async function attachmentsFor(
  { database, incoming, workers }: Pick<House, 'database' | 'incoming' | 'workers'>,
  id: string,
): Promise<Attachments> {
  const { projectId, document } = await loadEffect(database, id);
  const { rows } = await database.query<AssetRow>(
    `select hash, name, kind, licence, size::float8 as bytes from project_assets join assets using (hash)
     where project_id = $1 and hash = any($2) and kind = 'rig'`,
    [projectId, assetsOf(document)],
  );
  return incoming.withFolder(async (folder) => {
    const rigs = await assetFiles(database, rows, folder);
    return workers.run('attachments', { effect: document, rigs }, MORE_SECONDS);
  });
}
