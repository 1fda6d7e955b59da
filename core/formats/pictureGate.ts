import { Inflate } from 'fflate';
import { FormatError } from './errors.ts';

/** Deflate packs at best so many bytes into one. */
const MOST_DEFLATED = 1032;
/** JPEG spends at least two bits on a block of 8 × 8, and blocks may be shared by four. */
const JPEG_PIXELS_PER_BYTE = 64 * 4 * 4;

export interface Stated {
  readonly size: readonly [width: number, height: number];
  /** No picture of this size takes less. */
  readonly leastBytes: number;
}

const viewOf = (bytes: Uint8Array) => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
const textAt = (bytes: Uint8Array, at: number) => String.fromCharCode(...bytes.subarray(at, at + 4));

/** Width and height that a PNG, JPEG or WebP says it has before its pixels begin; null where it does not say. */
export function statedSize(bytes: Uint8Array): Stated | null {
  if (bytes[0] === 0x89) return pngSize(bytes);
  if (bytes[0] === 0xff) return jpegSize(bytes);
  return textAt(bytes, 8) === 'WEBP' ? webpSize(bytes) : null;
}

const BITS_OF_CHANNELS: Readonly<Record<number, number>> = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 };
/** Bytes of a PNG's pixels when they are unpacked, each row with its filter. */
const pngBytes = (width: number, height: number, depth: number, colour: number): number =>
  height * (1 + Math.ceil((width * depth * (BITS_OF_CHANNELS[colour] ?? 4)) / 8));

function pngSize(bytes: Uint8Array): Stated | null {
  if (bytes.length < 29) return null;
  const view = viewOf(bytes);
  const [width, height] = [view.getUint32(16), view.getUint32(20)];
  return { size: [width, height], leastBytes: pngBytes(width, height, bytes[24]!, bytes[25]!) / MOST_DEFLATED };
}

function jpegSize(bytes: Uint8Array): Stated | null {
  const view = viewOf(bytes);
  let at = 2;
  while (at + 9 < bytes.length && bytes[at] === 0xff) {
    const marker = bytes[at + 1]!;
    const isFrame = marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker);
    if (isFrame) {
      const [width, height] = [view.getUint16(at + 7), view.getUint16(at + 5)];
      return { size: [width, height], leastBytes: (width * height) / JPEG_PIXELS_PER_BYTE };
    }
    at += 2 + view.getUint16(at + 2);
  }
  return null;
}

function webpSize(bytes: Uint8Array): Stated | null {
  if (bytes.length < 30) return null;
  const view = viewOf(bytes);
  const three = (at: number) => view.getUint16(at, true) + bytes[at + 2]! * 65536;
  const sized = (width: number, height: number): Stated => ({ size: [width, height], leastBytes: 0 });
  switch (textAt(bytes, 12)) {
    case 'VP8X':
      return sized(three(24) + 1, three(27) + 1);
    case 'VP8L': {
      const packed = view.getUint32(21, true);
      return sized((packed & 0x3fff) + 1, ((packed >>> 14) & 0x3fff) + 1);
    }
    case 'VP8 ':
      return sized(view.getUint16(26, true) & 0x3fff, view.getUint16(28, true) & 0x3fff);
    default:
      return null;
  }
}

/** Parts of a PNG that its pixels hang on; what else it carries is not looked into. */
const NEEDED = new Set(['IHDR', 'PLTE', 'tRNS', 'IDAT', 'IEND']);
const SIGNATURE = 8;

/**
 * A PNG with only what its pixels hang on, once it is seen that they unpack to no more than it states.
 * @throws FormatError
 */
export function plainPng(bytes: Uint8Array): Uint8Array {
  const damaged = (why: string) => new FormatError('picture.damaged', `this picture is damaged: ${why}`);
  const view = viewOf(bytes);
  const kept: Uint8Array[] = [bytes.subarray(0, SIGNATURE)];
  const pixels: Uint8Array[] = [];
  let at = SIGNATURE;
  while (at + 12 <= bytes.length) {
    const length = view.getUint32(at);
    const kind = textAt(bytes, at + 4);
    const end = at + 12 + length;
    if (end > bytes.length) throw damaged('it ends too soon');
    if (NEEDED.has(kind)) kept.push(bytes.subarray(at, end));
    if (kind === 'IDAT') pixels.push(bytes.subarray(at + 8, end - 4));
    at = end;
  }
  if (textAt(bytes, SIGNATURE + 4) !== 'IHDR' || pixels.length === 0) throw damaged('it has no pixels');
  const [width, height] = [view.getUint32(16), view.getUint32(20)];
  // Pictures that come in seven passes have some more rows, each with its filter.
  mustUnpackTo(pixels, pngBytes(width, height, bytes[24]!, bytes[25]!) * 2 + 1024);
  const plain = new Uint8Array(kept.reduce((sum, part) => sum + part.length, 0));
  let to = 0;
  for (const part of kept) {
    plain.set(part, to);
    to += part.length;
  }
  return plain;
}

/** Refuses packed pixels that unpack to more than there is room for; what cannot be unpacked is left to the decoder. */
function mustUnpackTo(parts: readonly Uint8Array[], most: number): void {
  let size = 0;
  const inflate = new Inflate((chunk) => {
    size += chunk.length;
    if (size > most)
      throw new FormatError('picture.bomb', 'this picture unpacks to more pixels than it says that it has');
  });
  // The stream's own head takes two bytes.
  let toSkip = 2;
  const STEP = 16 * 1024;
  try {
    for (const part of parts)
      for (let at = 0; at < part.length; at += STEP) {
        const chunk = part.subarray(at, at + STEP);
        inflate.push(chunk.subarray(Math.min(toSkip, chunk.length)), false);
        toSkip = Math.max(0, toSkip - chunk.length);
      }
  } catch (error) {
    if (error instanceof FormatError) throw error;
  }
}
