import { strToU8, zipSync, type Zippable } from 'fflate';
import { canonicalText, SCHEMA, type Effect } from '../../document/index.ts';
import { SIMULATION } from '../../simulation/index.ts';
import { hashName } from '../hashName.ts';
import { openFile } from '../openFile.ts';
import { PARCEL, type Manifest } from './manifest.ts';
import type { Parcel, ParcelAsset, ParcelEffect } from './parcel.ts';
import { canonicalFile } from './readParcel.ts';

/** Every file carries this date, so that the same effects always give the same parcel. */
const DATE = '1980-01-02T00:00:00Z';

/** A part of a file's name that every disk takes. */
export const plainName = (name: string): string =>
  name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^0-9a-z]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 40) || 'unnamed';

/** The file of the n-th effect of a parcel, from 1. */
export const effectFile = (n: number, name: string): string => `effects/${n}-${plainName(name)}.json`;
const pictureFile = (file: string): string => file.replace('effects/', 'pictures/').replace('.json', '.png');
const openName = ({ kind, name, hash }: ParcelAsset): string =>
  `${kind === 'rig' ? 'meshes' : 'textures'}/${plainName(name)}-${hash.slice(0, 8)}.${kind === 'rig' ? 'glb' : 'png'}`;

type Packed = Record<string, Uint8Array | [Uint8Array, { level: 0 }]>;
/** What is packed already gains nothing from being packed once more. */
const stored = (bytes: Uint8Array): Packed[string] => [bytes, { level: 0 }];

function addEffect(
  into: Packed,
  { file, effect, licence, siblingOf, linkedAs, picture }: ParcelEffect,
): Manifest['effects'][number] {
  const text = strToU8(canonicalText(effect));
  into[file] = text;
  if (picture) into[pictureFile(file)] = stored(picture);
  return {
    ...{ file, licence, siblingOf, linkedAs, name: effect.name, sha256: hashName(text) },
    picture: picture && { file: pictureFile(file), sha256: hashName(picture) },
  };
}

async function addAsset(into: Packed, asset: ParcelAsset): Promise<Manifest['assets'][number]> {
  const { hash, name, kind, licence, bytes } = asset;
  const [file, open] = [openName(asset), await openFile(kind, bytes)];
  into[canonicalFile(hash)] = bytes;
  into[file] = kind === 'picture' ? stored(open) : open;
  return { hash, name, kind, licence, open: { file, sha256: hashName(open) } };
}

/** A parcel of one effect. */
export const parcelOf = (effect: Effect, assets: readonly ParcelAsset[], licence = ''): Parcel => ({
  licence,
  effects: [
    { file: effectFile(1, effect.name), effect, licence: '', siblingOf: null, linkedAs: null, picture: null },
  ],
  assets,
});

/** The same parcel always gives the same bytes. */
export async function writeParcel({ licence, effects, assets }: Parcel): Promise<Uint8Array<ArrayBuffer>> {
  const packed: Packed = {};
  const manifest: Manifest = {
    parcel: PARCEL,
    made: { schema: SCHEMA, simulation: SIMULATION },
    licence,
    effects: effects.map((effect) => addEffect(packed, effect)),
    assets: [],
  };
  for (const asset of [...assets].sort((a, b) => (a.hash < b.hash ? -1 : 1)))
    manifest.assets.push(await addAsset(packed, asset));
  const files: Zippable = { 'manifest.json': strToU8(canonicalText(manifest)), ...packed };
  return zipSync(files, { level: 6, mtime: DATE });
}
