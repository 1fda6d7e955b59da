import { joined } from './joined.ts';

/** A picture of an animated WebP: a still WebP of the whole size, and milliseconds for which it is shown. */
export interface WebpPicture {
  readonly bytes: Uint8Array;
  readonly milliseconds: number;
}

const CHUNK = 8;
const nameAt = (bytes: Uint8Array, at: number): string => String.fromCharCode(...bytes.subarray(at, at + 4));
const u32At = (bytes: Uint8Array, at: number): number =>
  new DataView(bytes.buffer, bytes.byteOffset).getUint32(at, true);

function chunk(name: string, ...parts: readonly Uint8Array[]): Uint8Array<ArrayBuffer> {
  const head = new Uint8Array(CHUNK);
  for (let n = 0; n < 4; n++) head[n] = name.charCodeAt(n);
  const data = joined(...parts);
  new DataView(head.buffer).setUint32(4, data.length, true);
  // What follows begins at an even byte.
  return joined(head, data, new Uint8Array(data.length & 1));
}

/** Numbers of three bytes, the least significant first. */
const u24 = (...values: readonly number[]): Uint8Array =>
  Uint8Array.from(values.flatMap((value) => [value & 255, (value >> 8) & 255, (value >> 16) & 255]));

/** The chunks of a still WebP that hold its pixels. @throws an error where there are none. */
function pixelsOf(bytes: Uint8Array): Uint8Array[] {
  const found: Uint8Array[] = [];
  for (let at = 12; at + CHUNK <= bytes.length;) {
    const size = u32At(bytes, at + 4);
    if (['ALPH', 'VP8 ', 'VP8L'].includes(nameAt(bytes, at)))
      found.push(bytes.subarray(at, at + CHUNK + size + (size & 1)));
    at += CHUNK + size + (size & 1);
  }
  if (found.length === 0) throw new Error('this browser encodes no WebP');
  return found;
}

/** How an animated WebP begins, `pixelBytes` being those of all pictures: it goes round without end. */
export function webpHead(
  width: number,
  height: number,
  hasAlpha: boolean,
  pictures: number,
): Uint8Array<ArrayBuffer> {
  const flags = 0x02 | (hasAlpha ? 0x10 : 0);
  const extended = chunk('VP8X', Uint8Array.of(flags, 0, 0, 0), u24(width - 1, height - 1));
  const animation = chunk('ANIM', new Uint8Array(4), new Uint8Array(2));
  const riff = new Uint8Array(12);
  riff.set(new TextEncoder().encode('RIFF'));
  new DataView(riff.buffer).setUint32(4, 4 + extended.length + animation.length + pictures, true);
  riff.set(new TextEncoder().encode('WEBP'), 8);
  return joined(riff, extended, animation);
}

/** One picture of an animated WebP (developers' page of the WebP container): it replaces the one before. */
export const webpPicture = (
  width: number,
  height: number,
  { bytes, milliseconds }: WebpPicture,
): Uint8Array<ArrayBuffer> =>
  chunk(
    'ANMF',
    u24(0, 0, width - 1, height - 1, Math.floor(milliseconds + 0.5)),
    Uint8Array.of(0x02),
    ...pixelsOf(bytes),
  );
