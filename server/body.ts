import type { Context } from 'koa';
import { z } from 'zod';
import { DocumentError, readJson } from '@jinx/core/document';
import { Refusal } from './errors.ts';

/** A body this many times too long is no longer heard out: the connection is cut. */
const PATIENCE = 4;

/**
 * Reads a request's body as bytes. One that is too long is heard out without being kept, for a browser that is cut off
 * while it sends never shows the answer.
 * @throws Refusal when it is longer than `most`.
 */
export async function bytesOf(context: Context, most: number): Promise<Uint8Array> {
  let parts: Buffer[] = [];
  let size = 0;
  for await (const part of context.req as AsyncIterable<Buffer>) {
    size += part.length;
    if (size <= most) parts.push(part);
    else parts = [];
    if (size > most * PATIENCE) break;
  }
  if (size > most)
    throw new Refusal(
      413,
      'too-large',
      `This is over the ${Math.round(most / 1048576)} MB that may be sent at once.`,
    );
  return new Uint8Array(Buffer.concat(parts));
}

const MOST_JSON = 16 * 1024 * 1024;

/** Reads and checks a JSON body. */
export async function jsonOf<T extends z.ZodType>(
  context: Context,
  schema: T,
  mostString?: number,
): Promise<z.infer<T>> {
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(await bytesOf(context, MOST_JSON));
  } catch (error) {
    if (error instanceof Refusal) throw error;
    throw new Refusal(400, 'not-text', 'What was sent is no text.');
  }
  let value: unknown;
  try {
    value = readJson(text, mostString);
  } catch (error) {
    if (!(error instanceof DocumentError)) throw error;
    throw new Refusal(400, error.code, `What was sent cannot be read: ${error.message}.`);
  }
  const parsed = schema.safeParse(value);
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
