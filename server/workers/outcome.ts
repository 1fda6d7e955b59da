import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { FormatError, type ParcelAsset } from '@jinx/core/formats';

/** An asset whose canonical bytes lie in a file. */
export interface FileAsset extends Omit<ParcelAsset, 'bytes'> {
  readonly file: string;
  readonly size: number;
}

/** What comes of a task: its result, a refusal in words of ours, or a fault without any. */
export type Outcome<T> =
  { readonly result: T } | { readonly code: string; readonly sentence: string } | { readonly fault: string };

export async function outcomeOf<T>(work: () => T | Promise<T>): Promise<Outcome<T>> {
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

/** Writes an asset's bytes into a folder of work. */
export function write(folder: string, hash: string, bytes: Uint8Array): { file: string; size: number } {
  const file = path.join(folder, `${hash}.part`);
  writeFileSync(file, bytes, { mode: 0o600 });
  return { file, size: bytes.length };
}
