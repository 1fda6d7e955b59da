import type { AssetKind, ParcelAsset } from '@jinx/core/formats';
import type { Session } from './database.ts';
import { notFound } from './errors.ts';
import type { Person } from './people/index.ts';

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
    `insert into project_assets (project_id, hash, name) values ($1, $2, $3)
     on conflict (project_id, hash) do update set deleted_at = null`,
    [projectId, asset.hash, asset.name],
  );
  return { hash: asset.hash, name: asset.name, kind: asset.kind };
}

/** An asset's bytes, where somebody has a part in a project that has it. */
export async function assetBytes(session: Session, hash: string, person: Person | null): Promise<Buffer | null> {
  const { rows } = await session.query<{ bytes: Buffer }>(
    `select bytes from assets where hash = $1 and ($2::uuid is null or exists
       (select 1 from project_assets join members using (project_id) where project_assets.hash = $1 and person_id = $2))`,
    [hash, person?.id ?? null],
  );
  return rows[0]?.bytes ?? null;
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
