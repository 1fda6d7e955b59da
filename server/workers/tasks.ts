import { readFileSync } from 'node:fs';
import type { FoundIn } from '@jinx/core/answers';
import { readKept, wordsOf } from '@jinx/core/document';
import { hashName, mustBeSmallPicture, readPicture } from '@jinx/core/formats';
import { findLines } from './findLines.ts';
import { imported } from './imported.ts';
import { outcomeOf, write, type FileAsset } from './outcome.ts';

export * from './parcels.ts';

/** Reads a figure, a prop or a picture, and writes its canonical bytes into `folder`. */
export const importFile = ({ file, name, folder }: { file: string; name: string; folder: string }) =>
  outcomeOf(async (): Promise<FileAsset & { originalHash: string }> => {
    const original = new Uint8Array(readFileSync(file));
    const { bytes, ...asset } = await imported(original, name);
    return { ...asset, ...write(folder, asset.hash, bytes), originalHash: hashName(original) };
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
