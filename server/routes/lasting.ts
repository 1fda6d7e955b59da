import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Slots } from '../access/slots.ts';
import { ownerOf, type Asked } from './route.ts';

/** A reader that takes nothing for this long is cut off. */
const STALLED_MILLISECONDS = 20_000;

/** Holds one of the slots until an answer is over, and cuts a reader off that takes nothing of it. @throws Refusal */
export async function holdSlot(slots: Slots, asked: Asked): Promise<void> {
  const { req, res } = asked.context;
  const giveBack = await slots.take(ownerOf(asked));
  // Who asked may have gone while they waited.
  if (req.socket.destroyed) return giveBack();
  res.once('close', giveBack);
  res.setTimeout(STALLED_MILLISECONDS, () => req.socket.destroy());
}

/** Answers with bytes that are the same for good under their address. */
export function answerLasting({ context }: Asked, type: string, bytes: Buffer | Readable): void {
  context.set('Cache-Control', 'private, max-age=31536000, immutable');
  context.type = type;
  context.body = bytes;
}

/** Answers with a thumbnail: what was shipped is WebP, what was sent is PNG. */
export const answerThumbnail = (asked: Asked, bytes: Buffer): void =>
  answerLasting(asked, bytes.toString('latin1', 8, 12) === 'WEBP' ? 'image/webp' : 'image/png', bytes);

/** Answers with a file to be saved. Resolves once it is sent: what it is read from has to stay until then. */
export async function answerFile(
  { context }: Asked,
  name: string,
  type: string,
  bytes: Readable,
  size?: number,
): Promise<void> {
  context.attachment(name);
  context.type = type;
  if (size !== undefined) context.length = size;
  context.respond = false;
  context.res.statusCode = 200;
  await pipeline(bytes, context.res);
}
