import { strToU8, unzipSync, zipSync } from 'fflate';
import { z } from 'zod';
import {
  assetsIn,
  canonicalText,
  DocumentError,
  isFields,
  listed,
  parseEffectText,
  readJson,
  type AssetUse,
  type Effect,
} from '../document/index.ts';
import { readCanonicalPicture } from './canonicalPicture.ts';
import { readRig } from './canonicalRig.ts';
import { FormatError } from './errors.ts';
import { hashName } from './hashName.ts';
import { zipIndex, type ZipEntry } from './zipIndex.ts';

/** What a parcel may hold to be read: bytes of its file, bytes of all that is in it, assets. */
export const MOST_PARCEL_BYTES = 128 * 1024 * 1024;
export const MOST_PARCEL_UNPACKED = 512 * 1024 * 1024;
export const MOST_PARCEL_ASSETS = 256;

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
    .max(MOST_PARCEL_ASSETS),
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

const MOST_TEXT = 16 * 1024 * 1024;
const MOST_FILES = 300;
/** Nothing that is packed unpacks to more times its size. */
const MOST_RATIO = 1040;
/** No document does: much of it is the same, not nearly all. */
const MOST_TEXT_RATIO = 250;
/** Every file carries this date, so that the same effect always gives the same parcel. */
const DATE = '1980-01-02T00:00:00Z';

/** The figures, props and meshes an effect uses, by hash. */
export const rigsOf = (effect: Effect): string[] => hashesOf(effect, (as) => as !== 'picture');
/** The pictures an effect uses, by hash, those among them that dials may bring. */
export const picturesOf = (effect: Effect): string[] => hashesOf(effect, (as) => as === 'picture');

const hashesOf = (effect: Effect, isAsked: (as: AssetUse) => boolean): string[] => [
  ...new Set(assetsIn(effect).flatMap(({ rule, hash }) => (isAsked(rule.as) ? [hash] : []))),
];

/** All assets an effect uses, by hash, and those of effects that stand in it. */
export const assetsOf = (effect: Effect): string[] => [
  ...new Set([
    ...hashesOf(effect, () => true),
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

const isText = (name: string) => name.endsWith('.json');
const told = (name: string) => `"${name.slice(0, 60)}"`;

/** Refuses a zip by its index, before anything of it is unpacked. */
function mustBeModest(entries: readonly ZipEntry[]): void {
  if (entries.length > MOST_FILES)
    throw new FormatError('parcel.files', `this parcel has ${entries.length} files; up to ${MOST_FILES} are read`);
  const size = entries.reduce((sum, { unpacked }) => sum + unpacked, 0);
  if (size > MOST_PARCEL_UNPACKED)
    throw new FormatError('parcel.unpacked', 'this parcel unpacks to more than a parcel may hold');
  const names = new Set<string>();
  for (const { name, packed, unpacked } of entries) {
    if (/^[/\\]|^[a-z]:|\\|(^|\/)\.\.?(\/|$)|\0/i.test(name))
      throw new FormatError('parcel.path', `this parcel has a file that would lead out of it: ${told(name)}`);
    // Names that a disk may take for the same.
    const plain = name.normalize('NFC').toLowerCase();
    if (names.has(plain)) throw new FormatError('parcel.twice', `this parcel has ${told(name)} twice`);
    names.add(plain);
    if (isText(name) && unpacked > MOST_TEXT)
      throw new FormatError('parcel.text', `${told(name)} in this parcel is longer than a document may be`);
    if (unpacked > packed * (isText(name) ? MOST_TEXT_RATIO : MOST_RATIO) + 64)
      throw new FormatError('parcel.ratio', `${told(name)} in this parcel would unpack to far more than it is`);
  }
}

/** Refuses a parcel by its size and its index, as reading it does. @throws FormatError */
export function mustFitParcel(bytes: Uint8Array): void {
  if (bytes.length > MOST_PARCEL_BYTES)
    throw new FormatError('parcel.large', `this parcel is over ${MOST_PARCEL_BYTES / 1048576} MB`);
  mustBeModest(zipIndex(bytes));
}

function unpack(bytes: Uint8Array): Record<string, Uint8Array> {
  mustFitParcel(bytes);
  try {
    return unzipSync(bytes);
  } catch {
    throw new FormatError('parcel.damaged', 'this parcel is damaged, or was cut short: hand the effect over again');
  }
}

function manifestIn(bytes: Uint8Array): z.infer<typeof manifestSchema> {
  const said = textIn(bytes, 'manifest', (text) => readJson(text));
  if (isFields(said) && typeof said['parcel'] === 'number' && said['parcel'] > 1)
    throw new FormatError('parcel.newer', 'this parcel was made by a newer Jinx: update Jinx to open it');
  const parsed = manifestSchema.safeParse(said);
  if (!parsed.success) {
    const { message, path } = parsed.error.issues[0]!;
    throw new FormatError(
      'parcel.manifest',
      `this parcel's manifest cannot be used: ${message} (at ${path.join('.')})`,
    );
  }
  return parsed.data;
}

/** What a text of the parcel says; its own errors are told as the parcel's. */
function textIn<T>(bytes: Uint8Array, what: string, read: (text: string) => T): T {
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new FormatError('parcel.letters', `the ${what} in this parcel is no text`);
  }
  try {
    return read(text);
  } catch (error) {
    if (!(error instanceof DocumentError)) throw error;
    throw new FormatError(`${what}.${error.code}`, `the ${what} in this parcel cannot be used: ${error.message}`);
  }
}

/**
 * Reads a parcel and checks all of it before anything is kept.
 * @throws FormatError with a sentence that says what is wrong.
 */
export function readParcel(bytes: Uint8Array): Parcel {
  const files = unpack(bytes);
  const { 'manifest.json': manifestBytes, 'effect.json': effectBytes } = files;
  if (!manifestBytes || !effectBytes)
    throw new FormatError('parcel.missing', 'this zip is not a parcel: it has no manifest and effect');
  const manifest = manifestIn(manifestBytes);
  const effect = textIn(effectBytes, 'effect', parseEffectText);
  const named = new Set(manifest.assets.map(({ hash }) => hash));
  if (named.size < manifest.assets.length)
    throw new FormatError('parcel.manifestTwice', "this parcel's manifest names the same asset twice");
  const assets = manifest.assets.map((entry): ParcelAsset => {
    const content = files[`assets/${entry.hash}.jxa`];
    if (!content)
      throw new FormatError('parcel.lacks', `this parcel lacks "${entry.name}", which its manifest names`);
    if (hashName(content) !== entry.hash)
      throw new FormatError('parcel.hash', `"${entry.name}" in this parcel is not what its manifest says`);
    checkAsset(entry.kind, content);
    if (entry.name.trim() === '') throw new FormatError('parcel.name', 'an asset of this parcel has no name');
    return { ...entry, bytes: content };
  });
  const expected = new Set(['manifest.json', 'effect.json', ...assets.map(({ hash }) => `assets/${hash}.jxa`)]);
  const stranger = Object.keys(files).find((name) => !expected.has(name));
  if (stranger !== undefined)
    throw new FormatError(
      'parcel.stranger',
      `this parcel holds "${stranger.slice(0, 60)}", which does not belong in one`,
    );
  for (const hash of assetsOf(effect))
    if (!assets.some((asset) => asset.hash === hash))
      throw new FormatError(
        'parcel.incomplete',
        'the effect in this parcel uses a figure or a picture that is not in it',
      );
  return { effect, assets };
}
