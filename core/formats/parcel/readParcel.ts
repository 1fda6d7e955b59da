import { parseEffectText } from '../../document/index.ts';
import { linkedInto } from '../../editing/index.ts';
import { readCanonicalPicture } from '../canonicalPicture.ts';
import { readRig } from '../canonicalRig.ts';
import { FormatError } from '../errors.ts';
import { hashName } from '../hashName.ts';
import { assetsOf } from './assetsOf.ts';
import { readManifest, type AssetKind, type ReadManifest } from './manifest.ts';
import type { ParcelEffect, ReadAsset, ReadParcel } from './parcel.ts';
import { textIn } from './text.ts';
import { unpack } from './unpack.ts';

type Files = Readonly<Record<string, Uint8Array>>;

/** Reads an asset's canonical bytes only to see that they are whole. @throws FormatError */
export function checkAsset(kind: AssetKind, bytes: Uint8Array): void {
  if (kind === 'rig') readRig(bytes);
  else readCanonicalPicture(bytes);
}

/** A file that the manifest names. @throws FormatError when it is not there, or is not as it was written. */
function fileOf(files: Files, file: string, sha256: string | null, what: string): Uint8Array {
  const bytes = files[file];
  if (!bytes)
    throw new FormatError('parcel.lacks', `this parcel lacks "${file}" (${what}), which its manifest names`);
  if (sha256 !== null && hashName(bytes) !== sha256)
    throw new FormatError(
      'parcel.edited',
      `"${file}" in this parcel (${what}) was changed after it was made: a parcel is taken in as it was handed over. Import the changed file by itself, or hand the effect over again`,
    );
  return bytes;
}

function effectIn(files: Files, entry: ReadManifest['effects'][number]): ParcelEffect {
  const { file, sha256, licence, siblingOf, linkedAs, picture } = entry;
  return {
    ...{ file, licence, siblingOf, linkedAs },
    effect: textIn(fileOf(files, file, sha256, 'an effect'), 'effect', parseEffectText),
    picture: picture && fileOf(files, picture.file, picture.sha256, 'the picture of an effect'),
  };
}

function assetIn(files: Files, entry: ReadManifest['assets'][number]): ReadAsset {
  const { hash, name, kind, licence, open } = entry;
  const bytes = files[canonicalFile(hash)];
  if (!bytes) throw new FormatError('parcel.lacks', `this parcel lacks "${name}", which its manifest names`);
  if (hashName(bytes) !== hash)
    throw new FormatError('parcel.hash', `"${name}" in this parcel is not what its manifest says`);
  checkAsset(kind, bytes);
  return {
    ...{ hash, name, kind, licence, bytes },
    open: open && { file: open.file, bytes: fileOf(files, open.file, open.sha256, `of "${name}"`) },
  };
}

export const canonicalFile = (hash: string): string => `assets/${hash}.jxa`;

/**
 * Effects after those that they are siblings of and that are linked into them, else as they were.
 * @throws FormatError when they go round in a circle, or one is a sibling of what is not there.
 */
function inOrder(effects: readonly ParcelEffect[]): ParcelEffect[] {
  const linked = new Map(effects.flatMap((each) => (each.linkedAs === null ? [] : [[each.linkedAs, each] as const])));
  const byFile = new Map(effects.map((each) => [each.file, each]));
  const ordered = new Set<ParcelEffect>();
  const onTheWay = new Set<ParcelEffect>();
  const visit = (each: ParcelEffect): void => {
    if (ordered.has(each)) return;
    if (onTheWay.has(each))
      throw new FormatError('parcel.circle', 'effects of this parcel are made of each other in a circle');
    onTheWay.add(each);
    if (each.siblingOf !== null) {
      const first = byFile.get(each.siblingOf);
      if (!first)
        throw new FormatError(
          'parcel.sibling',
          `this parcel has a sibling of "${each.siblingOf.slice(0, 60)}", and not that`,
        );
      visit(first);
    }
    for (const of of linkedInto(each.effect)) {
      const other = linked.get(of);
      if (other) visit(other);
    }
    ordered.add(each);
  };
  effects.forEach(visit);
  return [...ordered];
}

/**
 * Reads a parcel and checks all of it before anything is kept, but what is in its files for other programs: see
 * `checkOpenFiles`.
 * @throws FormatError with a sentence that says what is wrong.
 */
export function readParcel(bytes: Uint8Array): ReadParcel {
  const files = unpack(bytes);
  const { 'manifest.json': manifestBytes } = files;
  if (!manifestBytes) throw new FormatError('parcel.missing', 'this zip is not a parcel: it has no manifest');
  const manifest = readManifest(manifestBytes);
  const effects = inOrder(manifest.effects.map((entry) => effectIn(files, entry)));
  const assets = manifest.assets.map((entry) => assetIn(files, entry));
  const expected = new Set([
    'manifest.json',
    ...manifest.effects.flatMap(({ file, picture }) => (picture ? [file, picture.file] : [file])),
    ...assets.flatMap(({ hash, open }) => (open ? [canonicalFile(hash), open.file] : [canonicalFile(hash)])),
  ]);
  const stranger = Object.keys(files).find((name) => !expected.has(name));
  if (stranger !== undefined)
    throw new FormatError(
      'parcel.stranger',
      `this parcel holds "${stranger.slice(0, 60)}", which does not belong in one`,
    );
  for (const { effect } of effects)
    for (const hash of assetsOf(effect))
      if (!assets.some((asset) => asset.hash === hash))
        throw new FormatError(
          'parcel.incomplete',
          `"${effect.name}" in this parcel uses a figure or a picture that is not in it`,
        );
  return { licence: manifest.licence, effects, assets };
}
