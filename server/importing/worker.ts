import { parentPort } from 'node:worker_threads';
import { FormatError, readParcel, type Parcel, type ParcelAsset } from '@jinx/core/formats';
import { imported } from './imported.ts';

/** Something to be taken in, and what comes of it. */
export type Task =
  | { readonly kind: 'file'; readonly bytes: Uint8Array; readonly name: string }
  | { readonly kind: 'parcel'; readonly bytes: Uint8Array };
export type Taken = ParcelAsset | Parcel;
export type Outcome =
  | { readonly taken: Taken }
  /** It cannot be: in words of ours, or without any. */
  | { readonly code: string; readonly sentence: string }
  | { readonly fault: string };

const port = parentPort!;

async function outcomeOf(task: Task): Promise<Outcome> {
  try {
    return { taken: task.kind === 'parcel' ? readParcel(task.bytes) : await imported(task.bytes, task.name) };
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

const bytesIn = (taken: Taken): Uint8Array[] =>
  'effect' in taken ? taken.assets.map(({ bytes }) => bytes) : [taken.bytes];

port.on('message', async (task: Task) => {
  const outcome = await outcomeOf(task);
  const given = 'taken' in outcome ? bytesIn(outcome.taken) : [];
  // What is a part of something larger cannot be handed over, and is copied.
  const whole = given.filter(({ buffer, byteLength }) => buffer.byteLength === byteLength);
  port.postMessage(outcome, [...new Set(whole.map(({ buffer }) => buffer as ArrayBuffer))]);
});
