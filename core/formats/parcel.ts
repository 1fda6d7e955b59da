import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { z } from 'zod';
import { canonicalText, DocumentError, listed, parseEffectText, picturesOf, type Effect } from '../document/index.ts';
import { readCanonicalPicture } from './canonicalPicture.ts';
import { readRig } from './canonicalRig.ts';
import { FormatError } from './errors.ts';
import { hashName } from './hashName.ts';

/**
 * A parcel: one zip with `manifest.json`, `effect.json` (canonical text) and `assets/<hash>.jxa` for every asset the
 * effect uses. Described in docs/formats.md.
 */
const manifestSchema = z.strictObject({
  parcel: z.literal(1),
  effect: z.literal('effect.json'),
  assets: z
    .array(
      z.strictObject({
        hash: z.string().regex(/^[0-9a-f]{64}$/),
        name: z.string().max(200),
        kind: z.enum(['rig', 'picture']),
      }),
    )
    .max(256),
});

/** What an asset is: a figure or prop, or a picture that looks show. */
export type AssetKind = 'rig' | 'picture';

export interface ParcelAsset {
  readonly hash: string;
  readonly name: string;
  readonly kind: AssetKind;
  readonly bytes: Uint8Array;
}

export interface Parcel {
  readonly effect: Effect;
  readonly assets: readonly ParcelAsset[];
}

const MOST_PACKED = 128 * 1024 * 1024;
const MOST_UNPACKED = 512 * 1024 * 1024;
const MOST_FILES = 300;
/** Every file carries this date, so that the same effect always gives the same parcel. */
const DATE = '1980-01-02T00:00:00Z';

/** The figures, props and meshes an effect uses, by hash. */
export const rigsOf = (effect: Effect): string[] => [
  ...new Set([
    ...listed(effect.stage.things).map(({ item }) => item.asset),
    ...listed(effect.dials).flatMap(({ item }) => (item.kind === 'mesh' ? [item.shows.asset] : [])),
    ...listed(effect.surfaces).flatMap(({ item }) => (item.kind === 'mesh' ? [item.asset] : [])),
    ...listed(effect.layers).flatMap(({ item }) =>
      item.drawn.kind === 'mesh' ? listed(item.drawn.meshes).map(({ item: mesh }) => mesh.asset) : [],
    ),
  ]),
];

/** All assets an effect uses, by hash: its rigs, then its pictures, then those of effects that stand in it. */
export const assetsOf = (effect: Effect): string[] => [
  ...new Set([
    ...rigsOf(effect),
    ...picturesOf(effect).map(({ asset }) => asset),
    ...listed(effect.groups).flatMap(({ item }) => (item.linked ? assetsOf(item.linked.effect) : [])),
  ]),
];

/** Reads an asset's canonical bytes only to see that they are whole. @throws FormatError */
export function checkAsset(kind: AssetKind, bytes: Uint8Array): void {
  if (kind === 'rig') readRig(bytes);
  else readCanonicalPicture(bytes);
}

export function writeParcel(effect: Effect, assets: readonly ParcelAsset[]): Uint8Array<ArrayBuffer> {
  const sorted = [...assets].sort((a, b) => (a.hash < b.hash ? -1 : 1));
  const manifest = {
    parcel: 1,
    effect: 'effect.json',
    assets: sorted.map(({ hash, name, kind }) => ({ hash, name, kind })),
  };
  const files: Record<string, Uint8Array> = {
    'manifest.json': strToU8(canonicalText(manifest)),
    'effect.json': strToU8(canonicalText(effect)),
  };
  for (const asset of sorted) files[`assets/${asset.hash}.jxa`] = asset.bytes;
  return zipSync(files, { level: 6, mtime: DATE });
}

function unpack(bytes: Uint8Array): Record<string, Uint8Array> {
  if (bytes.length > MOST_PACKED) throw new FormatError(`this parcel is over ${MOST_PACKED / 1048576} MB`);
  let files = 0;
  let size = 0;
  try {
    return unzipSync(bytes, {
      filter: (file) => {
        files++;
        size += file.originalSize;
        if (files > MOST_FILES || size > MOST_UNPACKED)
          throw new FormatError('this parcel unpacks to more than a parcel may hold');
        return true;
      },
    });
  } catch (error) {
    if (error instanceof FormatError) throw error;
    throw new FormatError('this is not a parcel, or it was cut short: hand the effect over again');
  }
}

/**
 * Reads a parcel and checks all of it before anything is kept.
 * @throws FormatError with a sentence that says what is wrong.
 */
export function readParcel(bytes: Uint8Array): Parcel {
  const files = unpack(bytes);
  const manifestBytes = files['manifest.json'];
  const effectBytes = files['effect.json'];
  if (!manifestBytes || !effectBytes)
    throw new FormatError('this zip is not a parcel: it has no manifest and effect');
  let manifest: z.infer<typeof manifestSchema>;
  try {
    manifest = manifestSchema.parse(JSON.parse(strFromU8(manifestBytes)));
  } catch {
    throw new FormatError("this parcel's manifest cannot be read");
  }
  let effect: Effect;
  try {
    effect = parseEffectText(strFromU8(effectBytes));
  } catch (error) {
    if (error instanceof DocumentError)
      throw new FormatError(`the effect in this parcel cannot be used: ${error.message}`);
    throw error;
  }
  const assets = manifest.assets.map((entry): ParcelAsset => {
    const content = files[`assets/${entry.hash}.jxa`];
    if (!content) throw new FormatError(`this parcel lacks "${entry.name}", which its manifest names`);
    if (hashName(content) !== entry.hash)
      throw new FormatError(`"${entry.name}" in this parcel is not what its manifest says`);
    checkAsset(entry.kind, content);
    return { ...entry, bytes: content };
  });
  const expected = new Set(['manifest.json', 'effect.json', ...assets.map(({ hash }) => `assets/${hash}.jxa`)]);
  const stranger = Object.keys(files).find((name) => !expected.has(name));
  if (stranger !== undefined)
    throw new FormatError(`this parcel holds "${stranger.slice(0, 60)}", which does not belong in one`);
  for (const hash of assetsOf(effect))
    if (!assets.some((asset) => asset.hash === hash))
      throw new FormatError('the effect in this parcel uses a figure or a picture that is not in it');
  return { effect, assets };
}
