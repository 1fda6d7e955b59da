import {
  checkAsset,
  hashName,
  importGlb,
  importPicture,
  looksLikePicture,
  writePicture,
  writeRig,
  type AssetKind,
  type ParcelAsset,
} from '@jinx/core/formats';
import type { Session } from './database.ts';
import { fromWebp } from './webp.ts';

export interface AssetSummary {
  readonly hash: string;
  readonly name: string;
  readonly kind: AssetKind;
}

/** Keeps canonical bytes under their hash and puts them among a project's assets. */
export async function keepAsset(session: Session, projectId: string, asset: ParcelAsset): Promise<AssetSummary> {
  await session.query('insert into assets (hash, kind, bytes) values ($1, $2, $3) on conflict do nothing', [
    asset.hash,
    asset.kind,
    Buffer.from(asset.bytes),
  ]);
  await session.query(
    'insert into project_assets (project_id, hash, name) values ($1, $2, $3) on conflict do nothing',
    [projectId, asset.hash, asset.name],
  );
  return { hash: asset.hash, name: asset.name, kind: asset.kind };
}

/** The one import: decodes a figure, a prop or a picture into canonical bytes, named by their hash. */
export async function imported(bytes: Uint8Array, fileName: string): Promise<ParcelAsset> {
  const isPicture = looksLikePicture(bytes) || /\.(png|jpe?g|webp)$/i.test(fileName);
  const kind: AssetKind = isPicture ? 'picture' : 'rig';
  const name = fileName.replace(/\.(glb|png|jpe?g|webp)$/i, '').slice(0, 80) || (isPicture ? 'picture' : 'figure');
  const canonical = isPicture
    ? writePicture(await importPicture(bytes, fromWebp))
    : writeRig(await importGlb(bytes, name));
  checkAsset(kind, canonical);
  return { hash: hashName(canonical), name, kind, bytes: canonical };
}

export async function assetBytes(session: Session, hash: string): Promise<Buffer | null> {
  const { rows } = await session.query<{ bytes: Buffer }>('select bytes from assets where hash = $1', [hash]);
  return rows[0]?.bytes ?? null;
}

/** Forgets assets that no project keeps any more. */
export async function sweepAssets(session: Session): Promise<void> {
  await session.query(
    'delete from assets where not exists (select 1 from project_assets where project_assets.hash = assets.hash)',
  );
}
