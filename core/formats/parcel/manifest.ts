import * as z from '../../zod/index.ts';
import { isFields, isPlainText, readJson } from '../../document/index.ts';
import { FormatError } from '../errors.ts';
import { textIn } from './text.ts';

/** Assets and effects that a parcel may hold. */
export const MOST_PARCEL_ASSETS = 256;
export const MOST_PARCEL_EFFECTS = 64;
/** The version of a parcel's layout that is written. */
export const PARCEL = 2;
const MOST_LICENCE = 400;

const hash = z.string().regex(/^[0-9a-f]{64}$/);
const assetName = z.string().max(200);
/** What an asset is: a figure or prop, or a picture that looks show. */
export const assetKindSchema = z.enum(['rig', 'picture']);
export type AssetKind = z.infer<typeof assetKindSchema>;
/** What may be done with something, in words, or the name of a licence; empty where nobody said. */
export const licenceSchema = z
  .string()
  .max(MOST_LICENCE, `a licence is at most ${MOST_LICENCE} characters`)
  .refine(isPlainText, 'a licence has characters that cannot be kept');

/** A file of the parcel beside the canonical bytes, and the SHA-256 of its bytes. */
const fileIn = (pattern: RegExp) => z.strictObject({ file: z.string().regex(pattern), sha256: hash });
const effectFile = z.string().regex(/^effects\/[0-9a-z-]{1,60}\.json$/);

const effectEntry = z.strictObject({
  file: effectFile,
  sha256: hash,
  name: z.string().max(80),
  licence: licenceSchema,
  /** The effect of the parcel that it keeps what it does not change of. */
  siblingOf: effectFile.nullable(),
  /** The id by which other effects of the parcel link it into themselves. */
  linkedAs: z.uuid().nullable(),
  picture: fileIn(/^pictures\/[0-9a-z-]{1,60}\.png$/).nullable(),
});
const assetEntry = z.strictObject({
  hash,
  name: assetName,
  kind: assetKindSchema,
  licence: licenceSchema,
  /** The same as PNG or GLB, for other programs. */
  open: fileIn(/^(textures\/[0-9a-z-]{1,60}\.png|meshes\/[0-9a-z-]{1,60}\.glb)$/),
});

const manifestSchema = z.strictObject({
  parcel: z.literal(PARCEL),
  /** The versions of the document and of the simulation of the Jinx that made it. */
  made: z.strictObject({ schema: z.number().int().min(0), simulation: z.number().int().min(0) }),
  /** What may be done with all of it, but for what has a licence of its own. */
  licence: licenceSchema,
  effects: z.array(effectEntry).min(1).max(MOST_PARCEL_EFFECTS),
  assets: z.array(assetEntry).max(MOST_PARCEL_ASSETS),
});
export type Manifest = z.infer<typeof manifestSchema>;

/** Parcels as they were made at first: one effect, and no files for other programs. */
const firstSchema = z.strictObject({
  parcel: z.literal(1),
  effect: z.literal('effect.json'),
  assets: z.array(z.strictObject({ hash, name: assetName, kind: assetKindSchema })).max(MOST_PARCEL_ASSETS),
});

/** A manifest of any version, as it is read. */
export interface ReadManifest {
  readonly licence: string;
  readonly effects: readonly (Omit<Manifest['effects'][number], 'sha256' | 'name'> & {
    readonly sha256: string | null;
  })[];
  readonly assets: readonly (Omit<Manifest['assets'][number], 'open'> & {
    readonly open: Manifest['assets'][number]['open'] | null;
  })[];
}

function fromFirst({ assets }: z.infer<typeof firstSchema>): ReadManifest {
  return {
    licence: '',
    effects: [{ file: 'effect.json', sha256: null, licence: '', siblingOf: null, linkedAs: null, picture: null }],
    assets: assets.map((asset) => ({ ...asset, licence: '', open: null })),
  };
}

/** @throws FormatError when it is none, is a newer one, or says what it cannot. */
export function readManifest(bytes: Uint8Array): ReadManifest {
  const said = textIn(bytes, 'manifest', (text) => readJson(text));
  const version = isFields(said) ? said['parcel'] : undefined;
  if (typeof version === 'number' && version > PARCEL)
    throw new FormatError('parcel.newer', 'this parcel was made by a newer Jinx: update Jinx to open it');
  const parsed = version === 1 ? firstSchema.safeParse(said) : manifestSchema.safeParse(said);
  if (!parsed.success) {
    const { message, path } = parsed.error.issues[0]!;
    throw new FormatError(
      'parcel.manifest',
      `this parcel's manifest cannot be used: ${message} (at ${path.join('.')})`,
    );
  }
  const manifest = parsed.data.parcel === 1 ? fromFirst(parsed.data) : parsed.data;
  mustNameOnce(manifest);
  return manifest;
}

function mustNameOnce({ effects, assets }: ReadManifest): void {
  const named = [...effects.map(({ file }) => file), ...assets.map((asset) => asset.hash)];
  if (new Set(named).size < named.length)
    throw new FormatError('parcel.manifestTwice', "this parcel's manifest names the same thing twice");
  const links = effects.flatMap(({ linkedAs }) => linkedAs ?? []);
  if (new Set(links).size < links.length)
    throw new FormatError('parcel.linkedTwice', "this parcel's manifest has two effects with the same id");
  if (assets.some(({ name }) => name.trim() === ''))
    throw new FormatError('parcel.name', 'an asset of this parcel has no name');
}
