import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { FoundIn } from '@jinx/core/answers';
import { parseEffect, readKept, wordsOf, type Effect } from '@jinx/core/document';
import {
  FormatError,
  mustBeSmallPicture,
  mustFitParcel,
  readParcel,
  readPicture,
  writeParcel,
  type AssetKind,
} from '@jinx/core/formats';
import { findLines } from './findLines.ts';
import { imported } from './imported.ts';

/** An asset whose canonical bytes lie in a file. */
export interface FileAsset {
  readonly hash: string;
  readonly name: string;
  readonly kind: AssetKind;
  readonly file: string;
  readonly size: number;
}

/** What comes of a task: its result, a refusal in words of ours, or a fault without any. */
export type Outcome<T> =
  { readonly result: T } | { readonly code: string; readonly sentence: string } | { readonly fault: string };

async function outcomeOf<T>(work: () => T | Promise<T>): Promise<Outcome<T>> {
  try {
    return { result: await work() };
  } catch (error) {
    if (error instanceof FormatError) return { code: error.code, sentence: error.message };
    // Where it failed, and not on what: that may be somebody's.
    const { name, stack } = error as Error;
    const frames = String(stack)
      .split('\n')
      .filter((line) => line.startsWith('    at '));
    return { fault: [name, ...frames].join('\n') };
  }
}

/** Reads a figure, a prop or a picture, and writes its canonical bytes into `folder`. */
export const importFile = ({ file, name, folder }: { file: string; name: string; folder: string }) =>
  outcomeOf(async (): Promise<FileAsset> => {
    const { bytes, ...asset } = await imported(new Uint8Array(readFileSync(file)), name);
    return { ...asset, ...write(folder, asset.hash, bytes) };
  });

function write(folder: string, hash: string, bytes: Uint8Array): { file: string; size: number } {
  const file = path.join(folder, `${hash}.part`);
  writeFileSync(file, bytes, { mode: 0o600 });
  return { file, size: bytes.length };
}

export interface FileParcel {
  readonly effect: Effect;
  readonly assets: readonly FileAsset[];
}

/** Reads a parcel, and writes the canonical bytes of its assets into `folder`. */
export const importParcel = ({ file, folder }: { file: string; folder: string }) =>
  outcomeOf((): FileParcel => {
    const { effect, assets } = readParcel(new Uint8Array(readFileSync(file)));
    return {
      effect,
      assets: assets.map(({ bytes, ...asset }) => ({ ...asset, ...write(folder, asset.hash, bytes) })),
    };
  });

/** Why no parcel is made, in a sentence. */
export const noParcel = (why: string): string =>
  `No parcel is made of this, for it could not be imported again: ${why}. Leave out figures and pictures that are not needed, or make them smaller.`;

/** Writes a parcel into a file. Refuses one that could not be imported again. Returns its size in bytes. */
export const exportParcel = ({
  document,
  assets,
  file,
}: {
  document: unknown;
  assets: readonly FileAsset[];
  file: string;
}) =>
  outcomeOf((): number => {
    const parcel = writeParcel(
      parseEffect(document),
      assets.map(({ hash, name, kind, file: from }) => ({
        hash,
        name,
        kind,
        bytes: new Uint8Array(readFileSync(from)),
      })),
    );
    try {
      mustFitParcel(parcel);
    } catch (error) {
      throw new FormatError('parcel.large', noParcel((error as Error).message));
    }
    writeFileSync(file, parcel, { mode: 0o600 });
    return parcel.length;
  });

/** Finds words in effects, by the text of their documents. */
export const searchEffects = ({
  effects,
  words,
}: {
  effects: readonly { id: string; name: string; document: string }[];
  words: readonly string[];
}) =>
  outcomeOf((): FoundIn[] =>
    effects.flatMap(({ document, ...effect }) => findLines(effect, wordsOf(readKept(document)), words)),
  );

/** Decodes a thumbnail to see that it is whole. */
export const checkPicture = ({ bytes, mostSide }: { bytes: Uint8Array; mostSide: number }) =>
  outcomeOf((): true => {
    mustBeSmallPicture(bytes, mostSide);
    readPicture(bytes);
    return true;
  });
