import type { Readable } from 'node:stream';
import type { Asked } from './route.ts';

/** Answers with bytes that are the same for good under their address. */
export function answerLasting({ context }: Asked, type: string, bytes: Buffer | Readable): void {
  context.set('Cache-Control', 'private, max-age=31536000, immutable');
  context.type = type;
  context.body = bytes;
}
