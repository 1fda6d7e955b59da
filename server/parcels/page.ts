import { createReadStream, readFileSync } from 'node:fs';
import { parcelPage } from '@jinx/core/formats';
import { Refusal } from '../errors.ts';

/** Bytes that are written as base64 at once: a multiple of three, so that the pieces follow one another. */
const PIECE = 3 * 65536;
const TEMPLATE = new URL('../../player/dist/page.html', import.meta.url);

function template(): string {
  try {
    return readFileSync(TEMPLATE, 'utf8');
  } catch {
    throw new Refusal(503, 'player', 'The player was not built: start Jinx by ./jinx start, which builds it.');
  }
}

/** A page that plays the parcel in a file, piece by piece. */
export async function* pageParts(file: string, title: string): AsyncGenerator<string> {
  const { before, after } = parcelPage(template(), title);
  yield before;
  let left: Buffer = Buffer.alloc(0);
  for await (const chunk of createReadStream(file, { highWaterMark: PIECE })) {
    const bytes = Buffer.concat([left, chunk as Buffer]);
    const whole = bytes.length - (bytes.length % 3);
    yield bytes.subarray(0, whole).toString('base64');
    left = bytes.subarray(whole);
  }
  yield left.toString('base64');
  yield after;
}
