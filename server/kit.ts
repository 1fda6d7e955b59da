import { randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { assetsOf, type ParcelAsset } from '@jinx/core/formats';
import { EFFECTS, KIT, KIT_FIGURES, KIT_PICTURES, KIT_PROPS, makeKit, shippedPicture, STARTS } from '@jinx/demo';
import { keepAsset, type NewAsset } from './assets.ts';
import { inTransaction, type Database } from './database.ts';
import { addEffect, keepPicture, type StoredEffect } from './effects/index.ts';
import { notFound, Refusal } from './errors.ts';
import type { House } from './house.ts';
import { imported } from './workers/imported.ts';

/** Names of the kit's meshes, figures and pictures, which a project may take one by one. */
export const kitFiles = (): string[] =>
  readdirSync(KIT)
    .filter((name) => /\.(glb|png)$/.test(name))
    .sort();

/** An asset of the kit, and the bytes of its file. */
type KitAsset = ParcelAsset & { readonly brought: Uint8Array; readonly thumbnail: Uint8Array | undefined };

async function fromKit(file: string): Promise<KitAsset> {
  const brought = new Uint8Array(readFileSync(new URL(file, KIT)));
  return { ...(await imported(brought, file)), brought, thumbnail: shippedPicture('kit', file) ?? undefined };
}

/** A file of the kit as an asset; refuses a name that it does not have. */
export async function kitAsset(file: string): Promise<KitAsset> {
  if (!kitFiles().includes(file)) throw new Refusal(404, 'not-found', `The Fenlight kit has no "${file}".`);
  return fromKit(file);
}

/** The thumbnail of a file of the kit. @throws Refusal where there is none. */
export function kitThumbnail(file: string): Buffer {
  const bytes = kitFiles().includes(file) && shippedPicture('kit', file);
  if (!bytes) throw notFound('thumbnail');
  return Buffer.from(bytes);
}

let whole: Promise<KitAsset[]> | null = null;
/** All of the kit as assets, by the names of their files; imported once. */
async function allAssets(): Promise<KitAsset[]> {
  whole ??= makeKit().then(() => Promise.all([...KIT_FIGURES, ...KIT_PROPS, ...KIT_PICTURES].map(fromKit)));
  return whole.catch((error: unknown) => {
    whole = null;
    throw error;
  });
}
const hashesOf = (assets: readonly ParcelAsset[]) => Object.fromEntries(assets.map(({ name, hash }) => [name, hash]));
const titled = ({ bytes, brought: _, ...asset }: KitAsset): NewAsset => ({
  ...asset,
  content: bytes,
  name: asset.name[0]!.toUpperCase() + asset.name.slice(1),
});

/** Puts a starting point into a project as an effect of its own, with what it uses of the kit: all of it or nothing. */
export async function begin(
  { database, quota }: Pick<House, 'database' | 'quota'>,
  projectId: string,
  start: string,
  name: string,
  author: string,
): Promise<StoredEffect> {
  const found = STARTS.find(({ id }) => id === start);
  if (!found) throw new Refusal(404, 'not-found', `There is no starting point "${start}".`);
  const assets = await allAssets();
  const effect = found.make(hashesOf(assets));
  if (name) effect.name = name;
  const used = new Set(assetsOf(effect));
  const size = assets.filter(({ hash }) => used.has(hash)).reduce((sum, { bytes }) => sum + bytes.length, 0);
  await quota.mustHaveRoom(database, projectId, size);
  return inTransaction(database, async (session) => {
    for (const asset of assets) if (used.has(asset.hash)) await keepAsset(session, projectId, titled(asset));
    return addEffect(session, projectId, effect, author);
  });
}

/** Puts the Fenlight demo in, once: a demo project that was deleted stays deleted. */
export async function seed(database: Database): Promise<void> {
  const { rowCount } = await database.query(`select 1 from facts where name = 'seeded'`);
  if (rowCount) return;
  const assets = await allAssets();
  await inTransaction(database, async (session) => {
    const projectId = randomUUID();
    await session.query('insert into projects (id, name) values ($1, $2)', [projectId, 'Fenlight']);
    for (const asset of assets) await keepAsset(session, projectId, titled(asset));
    for (const make of EFFECTS) {
      const { id, revision, document } = await addEffect(session, projectId, make(hashesOf(assets)), '');
      const picture = shippedPicture('effect', document.name);
      if (picture) await keepPicture(session, id, revision, picture);
    }
    await session.query(`insert into facts (name, value) values ('seeded', '1') on conflict do nothing`);
  });
}
