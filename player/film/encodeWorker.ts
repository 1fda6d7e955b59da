import { encode, type EncodeJob } from './encode.ts';

export type Encoded = { readonly bytes: Uint8Array<ArrayBuffer> } | { readonly sentence: string };

// Encodes pictures beside the worker that draws them.
declare const self: DedicatedWorkerGlobalScope;

self.onmessage = ({ data }: MessageEvent<EncodeJob>) => {
  try {
    const bytes = encode(data);
    self.postMessage({ bytes } satisfies Encoded, [bytes.buffer]);
  } catch (error) {
    self.postMessage({ sentence: (error as Error).message } satisfies Encoded);
  }
};
