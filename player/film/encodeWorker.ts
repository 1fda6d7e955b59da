import { encode, type EncodeJob } from './encode.ts';

export type Encoded = { readonly bytes: Uint8Array<ArrayBuffer> } | { readonly sentence: string };

// Encodes pictures beside the worker that draws them.
declare const self: DedicatedWorkerGlobalScope;

self.onmessage = ({ data }: MessageEvent<EncodeJob>) =>
  encode(data).then(
    (bytes) => self.postMessage({ bytes } satisfies Encoded, [bytes.buffer]),
    (error: Error) => self.postMessage({ sentence: error.message } satisfies Encoded),
  );
