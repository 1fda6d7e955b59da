import type { Context } from 'koa';
import { z } from 'zod';
import { DocumentError, readJson } from '@jinx/core/document';
import { Refusal } from './errors.ts';
import { nextTurn } from './turns.ts';

const MEGABYTE = 1024 * 1024;

/** How long a request's body may be, and how long it may take to arrive. Each route has one. */
export interface BodyLimit {
  readonly bytes: number;
  readonly seconds: number;
}
/** A password. */
export const SIGN_IN_BODY: BodyLimit = { bytes: 4 * 1024, seconds: 5 };
/** A few names and choices. */
export const SMALL_BODY: BodyLimit = { bytes: 16 * 1024, seconds: 10 };
/** A thumbnail. */
export const PICTURE_BODY: BodyLimit = { bytes: MEGABYTE, seconds: 20 };
/** A whole effect, or edits of one. */
export const DOCUMENT_BODY: BodyLimit = { bytes: 16 * MEGABYTE, seconds: 60 };
/** A figure, a picture or a parcel: it is written to disk as it comes. */
export const FILE_BODY: BodyLimit = { bytes: 128 * MEGABYTE, seconds: 240 };

/** A body this many times too long is no longer read to its end: the connection is cut. */
const PATIENCE = 4;
/** Bytes of all bodies that are held in memory at one time. */
const MOST_HELD = 128 * MEGABYTE;
let held = 0;
/** A text of more letters takes a while to read. */
const LONG = 1_000_000;

const tooLong = ({ bytes }: BodyLimit) => {
  const size = bytes >= MEGABYTE ? `${bytes / MEGABYTE} MB` : `${bytes / 1024} kB`;
  return new Refusal(413, 'too-large', `This is over the ${size} that may be sent at once.`);
};

/**
 * The parts of a request's body as they come. One that is too long is read on for a while without being handed out, for a
 * browser that is cut off while it sends never shows the answer.
 * @throws Refusal when it is longer than its limit, or takes longer.
 */
export async function* partsOf(context: Context, limit: BodyLimit): AsyncGenerator<Buffer> {
  const endConnection = (error: Refusal) => {
    context.set('Connection', 'close');
    return error;
  };
  if (Number(context.get('Content-Length')) > limit.bytes * PATIENCE) throw endConnection(tooLong(limit));
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, fail) => {
    timer = setTimeout(
      () => fail(endConnection(new Refusal(408, 'slow', `This took over ${limit.seconds} seconds to arrive.`))),
      limit.seconds * 1000,
    );
  });
  late.catch(() => undefined);
  const parts = context.req[Symbol.asyncIterator]() as AsyncIterator<Buffer>;
  let size = 0;
  try {
    for (;;) {
      const { done, value } = await Promise.race([parts.next(), late]);
      if (done) break;
      size += value.length;
      if (size > limit.bytes * PATIENCE) throw endConnection(tooLong(limit));
      if (size <= limit.bytes) yield value;
    }
    if (size > limit.bytes) throw tooLong(limit);
  } finally {
    clearTimeout(timer);
  }
}

/** Reads a request's body as bytes. @throws Refusal as {@link partsOf} does, and when too much is held at once. */
export async function bytesOf(context: Context, limit: BodyLimit): Promise<Uint8Array> {
  const parts: Buffer[] = [];
  let size = 0;
  try {
    for await (const part of partsOf(context, limit)) {
      size += part.length;
      held += part.length;
      if (held > MOST_HELD)
        throw new Refusal(503, 'busy', 'Too much is being sent to the server just now: try again in a moment.', {
          seconds: 2,
        });
      parts.push(part);
    }
    return Buffer.concat(parts);
  } finally {
    held -= size;
  }
}

/** Reads and checks a JSON body, in stretches that let others be answered between them. @throws Refusal */
export async function jsonOf<T extends z.ZodType>(
  context: Context,
  schema: T,
  limit: BodyLimit = SMALL_BODY,
  mostString?: number,
): Promise<z.infer<T>> {
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(await bytesOf(context, limit));
  } catch (error) {
    if (!(error instanceof TypeError)) throw error;
    throw new Refusal(400, 'not-text', 'What was sent is no text.');
  }
  if (text.length > LONG) await nextTurn();
  let value: unknown;
  try {
    value = readJson(text, mostString);
  } catch (error) {
    if (!(error instanceof DocumentError)) throw error;
    throw new Refusal(400, error.code, `What was sent cannot be read: ${error.message}.`);
  }
  if (text.length > LONG) await nextTurn();
  const parsed = schema.safeParse(value);
  if (text.length > LONG) await nextTurn();
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    throw new Refusal(400, 'request', issue.message, { path: issue.path.join('.') });
  }
  return parsed.data;
}

/** A row's id out of the address. */
export function idOf(context: { params: Record<string, string> }, what: string): string {
  const parsed = z.uuid().safeParse(context.params['id']);
  if (!parsed.success) throw new Refusal(404, 'not-found', `There is no such ${what}.`);
  return parsed.data;
}
