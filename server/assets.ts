import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import type { AssetSummary } from '@jinx/core/answers';
import type { ParcelAsset } from '@jinx/core/formats';
import type { Session } from './database.ts';
import { notFound } from './errors.ts';
import type { Person } from './people/index.ts';

/** Bytes of an asset that are read or written at once; the migration that made slices has the same number. */
const SLICE = 256 * 1024;

/** An asset to be kept: its canonical bytes, or the file they lie in. */
export type NewAsset = Omit<ParcelAsset, 'bytes'> & { readonly content: Uint8Array | string };

async function* slicesOf(content: Uint8Array | string): AsyncGenerator<Buffer> {
  if (typeof content === 'string') yield* createReadStream(content, { highWaterMark: SLICE });
  else
    for (let at = 0; at < content.length; at += SLICE)
      yield Buffer.from(content.buffer, content.byteOffset + at, Math.min(SLICE, content.length - at));
}

/** Keeps canonical bytes under their hash and puts them among a project's assets. To be run in one transaction. */
export async function keepAsset(session: Session, projectId: string, asset: NewAsset): Promise<AssetSummary> {
  const { hash, name, kind, content } = asset;
  const size = typeof content === 'string' ? (await stat(content)).size : content.length;
  const { rowCount } = await session.query(
    'insert into assets (hash, kind, size) values ($1, $2, $3) on conflict do nothing',
    [hash, kind, size],
  );
  let n = 0;
  if (rowCount === 1)
    for await (const slice of slicesOf(content))
      await session.query('insert into asset_slices (hash, n, bytes) values ($1, $2, $3)', [hash, n++, slice]);
  await session.query(
    `insert into project_assets (project_id, hash, name) values ($1, $2, $3)
     on conflict (project_id, hash) do update set deleted_at = null`,
    [projectId, hash, name],
  );
  return { hash, name, kind };
}

/** The size of an asset in bytes, where somebody has a part in a project that has it; null elsewhere. */
export async function assetSize(session: Session, hash: string, person: Person | null): Promise<number | null> {
  const { rows } = await session.query<{ size: string }>(
    `select size from assets where hash = $1 and ($2::uuid is null or exists
       (select 1 from project_assets join members using (project_id) where project_assets.hash = $1 and person_id = $2))`,
    [hash, person?.id ?? null],
  );
  return rows[0] ? Number(rows[0].size) : null;
}

/**
 * The bytes of an asset, slice by slice, each in a query of its own: nothing is held while the reader is slow. node-postgres
 * reads results as text only, so that a slice takes twice its size for a moment.
 */
export async function* assetSlices(session: Session, hash: string): AsyncGenerator<Buffer> {
  for (let n = 0; ; n++) {
    const { rows } = await session.query<{ bytes: Buffer }>(
      'select bytes from asset_slices where hash = $1 and n = $2',
      [hash, n],
    );
    if (!rows[0]) return;
    yield rows[0].bytes;
  }
}

/** The names of effects of a project that use an asset. */
export async function assetUsers(session: Session, projectId: string, hash: string): Promise<string[]> {
  const { rows } = await session.query<{ name: string }>(
    `select name from effects where project_id = $1 and deleted_at is null and strpos(document, $2) > 0 order by name`,
    [projectId, hash],
  );
  return rows.map(({ name }) => name);
}

/** Takes an asset away from a project, so that it can be brought back, or brings it back. */
export async function setAssetDeleted(
  session: Session,
  projectId: string,
  hash: string,
  isDeleted: boolean,
): Promise<void> {
  const { rowCount } = await session.query(
    `update project_assets set deleted_at = ${isDeleted ? 'now()' : 'null'} where project_id = $1 and hash = $2`,
    [projectId, hash],
  );
  if (rowCount === 0) throw notFound('asset');
}

/** Forgets assets that no project keeps any more. */
export async function sweepAssets(session: Session): Promise<void> {
  await session.query(
    'delete from assets where not exists (select 1 from project_assets where project_assets.hash = assets.hash)',
  );
}
