import { createReadStream, createWriteStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import path from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { AssetSummary } from '@jinx/core/answers';
import type { AssetKind, ParcelAsset } from '@jinx/core/formats';
import type { Session } from './database.ts';
import { notFound } from './errors.ts';
import type { Person } from './people/index.ts';
import type { FileAsset } from './workers/outcome.ts';

/** Bytes of an asset that are read or written at once; the migration that made slices has the same number. */
const SLICE = 256 * 1024;

/** Bytes to be kept, or the file they lie in. */
type Content = Uint8Array | string;

/** An asset to be kept: its canonical bytes, and the file it was imported from. */
export type NewAsset = Omit<ParcelAsset, 'bytes'> & {
  readonly content: Content;
  readonly original?: { readonly name: string; readonly hash: string; readonly content: Content };
  readonly thumbnail?: Uint8Array | undefined;
};

async function* slicesOf(content: Content): AsyncGenerator<Buffer> {
  if (typeof content === 'string') yield* createReadStream(content, { highWaterMark: SLICE });
  else
    for (let at = 0; at < content.length; at += SLICE)
      yield Buffer.from(content.buffer, content.byteOffset + at, Math.min(SLICE, content.length - at));
}

/** Keeps bytes under their hash, once. */
async function keepBytes(session: Session, hash: string, kind: string, content: Content): Promise<void> {
  const size = typeof content === 'string' ? (await stat(content)).size : content.length;
  const { rowCount } = await session.query(
    'insert into assets (hash, kind, size) values ($1, $2, $3) on conflict do nothing',
    [hash, kind, size],
  );
  let n = 0;
  if (rowCount === 1)
    for await (const slice of slicesOf(content))
      await session.query('insert into asset_slices (hash, n, bytes) values ($1, $2, $3)', [hash, n++, slice]);
}

/**
 * Keeps canonical bytes, and the file they came from, and puts them among a project's assets; what was said of it there
 * stays, unless something is said now. To be run in one transaction.
 */
export async function keepAsset(session: Session, projectId: string, asset: NewAsset): Promise<AssetSummary> {
  const { hash, name, kind, licence, content, original, thumbnail } = asset;
  await keepBytes(session, hash, kind, content);
  if (original) await keepBytes(session, original.hash, 'original', original.content);
  const { rows } = await session.query<AssetSummary>(
    `insert into project_assets as kept (project_id, hash, name, licence, original, original_name, thumbnail)
     values ($1, $2, $3, $4, $5, $6, $8)
     on conflict (project_id, hash) do update set deleted_at = null,
       licence = case when kept.licence = '' then excluded.licence else kept.licence end,
       original = coalesce(excluded.original, kept.original),
       original_name = coalesce(excluded.original_name, kept.original_name),
       thumbnail = coalesce(kept.thumbnail, excluded.thumbnail)
     returning hash, name, $7::text as kind, licence, original_name as "originalName",
       thumbnail is not null as "hasThumbnail",
       (select size::float8 from assets where assets.hash = kept.hash) as bytes`,
    [projectId, hash, name, licence, original?.hash ?? null, original?.name ?? null, kind, thumbnail ?? null],
  );
  return rows[0]!;
}

/** An asset of a project, with the file it was imported from. */
export interface StoredAsset {
  readonly name: string;
  readonly kind: AssetKind;
  readonly original: string | null;
  readonly originalName: string | null;
}

/** An asset of a project, deleted ones among them. @throws Refusal where the project does not have it. */
export async function assetOf(session: Session, projectId: string, hash: string): Promise<StoredAsset> {
  const { rows } = await session.query<StoredAsset>(
    `select name, kind, original, original_name as "originalName" from project_assets join assets using (hash)
     where project_id = $1 and hash = $2`,
    [projectId, hash],
  );
  if (!rows[0]) throw notFound('asset');
  return rows[0];
}

/** Writes an asset's bytes into a folder of work. Returns the file. */
export async function assetFile(session: Session, hash: string, folder: string): Promise<string> {
  const file = path.join(folder, `${hash}.part`);
  await pipeline(Readable.from(assetSlices(session, hash)), createWriteStream(file, { mode: 0o600 }));
  return file;
}

/** What a project says of an asset. */
export type AssetRow = Pick<AssetSummary, 'hash' | 'name' | 'kind' | 'licence' | 'bytes'>;

/** Writes assets into a folder of work, for threads to read. */
export async function assetFiles(session: Session, rows: readonly AssetRow[], folder: string): Promise<FileAsset[]> {
  const files: FileAsset[] = [];
  for (const { hash, name, kind, licence, bytes: size } of rows)
    files.push({ hash, name, kind, licence, size, file: await assetFile(session, hash, folder) });
  return files;
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

/** The thumbnail of an asset of a project. @throws Refusal where there is none. */
export async function thumbnailOf(session: Session, projectId: string, hash: string): Promise<Buffer> {
  const { rows } = await session.query<{ thumbnail: Buffer | null }>(
    'select thumbnail from project_assets where project_id = $1 and hash = $2',
    [projectId, hash],
  );
  if (!rows[0]?.thumbnail) throw notFound('thumbnail');
  return rows[0].thumbnail;
}

/** Keeps the thumbnail of an asset of a project. @throws Refusal where the project does not have it. */
export async function keepThumbnail(
  session: Session,
  projectId: string,
  hash: string,
  thumbnail: Uint8Array,
): Promise<void> {
  const { rowCount } = await session.query(
    'update project_assets set thumbnail = $3 where project_id = $1 and hash = $2',
    [projectId, hash, Buffer.from(thumbnail)],
  );
  if (rowCount === 0) throw notFound('asset');
}

/** Says what may be done with an asset of a project. */
export async function setAssetLicence(
  session: Session,
  projectId: string,
  hash: string,
  licence: string,
): Promise<void> {
  const { rowCount } = await session.query(
    'update project_assets set licence = $3 where project_id = $1 and hash = $2 and deleted_at is null',
    [projectId, hash, licence],
  );
  if (rowCount === 0) throw notFound('asset');
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
    `delete from assets where not exists (select 1 from project_assets
       where project_assets.hash = assets.hash or project_assets.original = assets.hash)`,
  );
}
