import { readFileSync, writeFileSync } from 'node:fs';
import { parseEffect, type Effect } from '@jinx/core/document';
import { bonesUsed, wholeOf } from '@jinx/core/editing';
import {
  attachmentsOf,
  checkOpenFiles,
  FormatError,
  mustFitParcel,
  openFile,
  readParcel,
  readRig,
  writeParcel,
  type AssetKind,
  type Attachments,
  type Parcel,
  type ParcelEffect,
} from '@jinx/core/formats';
import { matchBones, type BoneMatch } from '@jinx/core/geometry';
import { measureReach } from '@jinx/core/simulation';
import { outcomeOf, write, type FileAsset } from './outcome.ts';

/** A parcel whose assets lie in files. */
export interface FileParcel extends Omit<Parcel, 'assets'> {
  readonly assets: readonly FileAsset[];
}

const bytesIn = (file: string): Uint8Array => new Uint8Array(readFileSync(file));

/** Reads a parcel, and writes the canonical bytes of its assets into `folder`. */
export const importParcel = ({ file, folder }: { file: string; folder: string }) =>
  outcomeOf(async (): Promise<FileParcel> => {
    const parcel = readParcel(bytesIn(file));
    await checkOpenFiles(parcel);
    return {
      ...parcel,
      assets: parcel.assets.map(({ bytes, open: _, ...asset }) => ({
        ...asset,
        ...write(folder, asset.hash, bytes),
      })),
    };
  });

/** Why no parcel is made, in a sentence. */
export const noParcel = (why: string): string =>
  `No parcel is made of this, for it could not be imported again: ${why}. Leave out figures and pictures that are not needed, or make them smaller.`;

/** An effect for a parcel; its document is checked before it is written. */
export type NewParcelEffect = Omit<ParcelEffect, 'effect'> & { readonly effect: unknown };

/** Writes a parcel into a file. Refuses one that could not be imported again. Returns its size in bytes. */
export const exportParcel = ({
  licence,
  effects,
  assets,
  into,
}: {
  licence: string;
  effects: readonly NewParcelEffect[];
  assets: readonly FileAsset[];
  into: string;
}) =>
  outcomeOf(async (): Promise<number> => {
    const parcel = await writeParcel({
      licence,
      effects: effects.map((each) => ({ ...each, effect: parseEffect(each.effect) })),
      assets: assets.map(({ file, ...asset }) => ({ ...asset, bytes: bytesIn(file) })),
    });
    try {
      mustFitParcel(parcel);
    } catch (error) {
      throw new FormatError('parcel.large', noParcel((error as Error).message));
    }
    writeFileSync(into, parcel, { mode: 0o600 });
    return parcel.length;
  });

/** Writes an asset as other programs read it: PNG or GLB. Returns its size in bytes. */
export const openAsset = ({ kind, file, into }: { kind: AssetKind; file: string; into: string }) =>
  outcomeOf(async (): Promise<number> => {
    const bytes = await openFile(kind, bytesIn(file));
    writeFileSync(into, bytes, { mode: 0o600 });
    return bytes.length;
  });

/** A figure that an effect may be put on: its bones, its clips, and which take the places of those that are named. */
export interface FittingFigure {
  readonly hash: string;
  readonly name: string;
  readonly bones: readonly string[];
  readonly clips: readonly string[];
  readonly matches: readonly BoneMatch[];
}

/** The names of a rig's bones. */
export const bonesOf = ({ file }: { file: string }) =>
  outcomeOf((): string[] => readRig(bytesIn(file)).bones.map(({ name }) => name));

/** Of some rigs, the figures (those of several bones) that effects may be put on in the place of another. */
export const matchFigures = ({
  from,
  others,
  effects,
}: {
  from: FileAsset;
  others: readonly FileAsset[];
  effects: readonly Effect[];
}) =>
  outcomeOf((): FittingFigure[] => {
    const rig = readRig(bytesIn(from.file));
    const used = [...new Set(effects.flatMap((effect) => bonesUsed(effect, from.hash)))];
    return others.flatMap(({ hash, name, file }) => {
      const other = readRig(bytesIn(file));
      if (other.bones.length < 2) return [];
      return {
        ...{ hash, name, bones: other.bones.map((bone) => bone.name), clips: other.clips.map((clip) => clip.name) },
        matches: matchBones(rig, other, used),
      };
    });
  });

const KERNELS = new URL('../../core/kernels/', import.meta.url);

/** What a game has to know of an effect: it is played to be measured. */
export const attachments = ({ effect, rigs }: { effect: unknown; rigs: readonly FileAsset[] }) =>
  outcomeOf((): Attachments => {
    const document = wholeOf(parseEffect(effect)).effect;
    const read = new Map(rigs.map(({ hash, file }) => [hash, readRig(bytesIn(file))]));
    const kernel = (name: string) => new Uint8Array(readFileSync(new URL(name, KERNELS)));
    const kernels = { plain: kernel('plain.wasm'), shared: kernel('shared.wasm') };
    return attachmentsOf(document, measureReach(document, read, { kernels }));
  });
