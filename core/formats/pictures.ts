import { decode as decodePng } from 'fast-png';
import jpeg from 'jpeg-js';
import type { Texture } from '../geometry/index.ts';
import { MOST_SIDE } from './canonicalPicture.ts';
import { FormatError } from './errors.ts';
import { plainPng, statedSize } from './pictureGate.ts';

/** Pixels of a picture that is imported: 128 MB when it is unpacked. Larger ones that are kept already are still read. */
const MOST_PIXELS = 8192 * 4096;

/** Refuses what is too large before it is unpacked: a small file may hold a very large picture. */
function mustFit(width: number, height: number): void {
  if (width < 1 || height < 1) throw new FormatError('picture.empty', 'this picture has no pixels');
  if (width > MOST_SIDE || height > MOST_SIDE)
    throw new FormatError(
      'picture.large',
      `this picture is ${width} × ${height} pixels; up to ${MOST_SIDE} along each side are read: make it smaller`,
    );
  if (width * height > MOST_PIXELS)
    throw new FormatError(
      'picture.pixels.many',
      `this picture is ${width} × ${height} pixels; up to ${MOST_PIXELS / 1048576} million are read, as 8192 × 4096: make it smaller`,
    );
}

const isPng = (bytes: Uint8Array): boolean => bytes[0] === 0x89 && bytes[1] === 0x50;
const isJpeg = (bytes: Uint8Array): boolean => bytes[0] === 0xff && bytes[1] === 0xd8;
/** Whether these are the bytes of a WebP picture: RIFF, four bytes of length, WEBP. */
const isWebp = (bytes: Uint8Array): boolean =>
  new TextDecoder('latin1').decode(bytes.subarray(0, 4)) === 'RIFF' &&
  new TextDecoder('latin1').decode(bytes.subarray(8, 12)) === 'WEBP';

/** Whether these bytes begin as a picture does that is read. */
export const looksLikePicture = (bytes: Uint8Array): boolean => isPng(bytes) || isJpeg(bytes) || isWebp(bytes);

/** Refuses what states a size that it cannot have, before room is made for it. */
function mustBeLikely(bytes: Uint8Array): void {
  const stated = statedSize(bytes);
  if (!stated) return;
  mustFit(...stated.size);
  if (bytes.length < stated.leastBytes)
    throw new FormatError(
      'picture.boast',
      `this picture says that it has ${stated.size.join(' × ')} pixels, and is too short to hold them`,
    );
}

/** Decodes WebP; handed in, for it is a WebAssembly module that each place loads in its own way. */
export type WebpDecoder = (bytes: Uint8Array) => Promise<Texture>;

function fromPng(bytes: Uint8Array): Texture {
  const png = decodePng(bytes);
  const { width, height, channels, depth, data, palette } = png;
  // As it is kept already: another copy of a large picture would be 128 MB.
  if (channels === 4 && depth === 8 && !palette && data instanceof Uint8Array) return { width, height, rgba: data };
  const rgba = new Uint8Array(width * height * 4);
  const level = (i: number) => (depth === 16 ? (data[i] ?? 0) >> 8 : (data[i] ?? 0));
  for (let p = 0; p < width * height; p++) {
    const o = p * 4;
    if (palette) {
      const colour = palette[data[p] ?? 0] ?? [0, 0, 0];
      rgba.set([colour[0] ?? 0, colour[1] ?? 0, colour[2] ?? 0, colour[3] ?? 255], o);
    } else if (channels <= 2) {
      const grey = level(p * channels);
      rgba.set([grey, grey, grey, channels === 2 ? level(p * channels + 1) : 255], o);
    } else for (let c = 0; c < 4; c++) rgba[o + c] = c < channels ? level(p * channels + c) : 255;
  }
  return { width, height, rgba };
}

const undecodable = (error: unknown) =>
  new FormatError(
    'picture.damaged',
    `this picture is damaged, or not what its name says: ${(error as Error).message}`,
  );

/**
 * Refuses a small picture, as a thumbnail, that states no size or one above `mostSide`: before it is decoded.
 * @throws FormatError
 */
export function mustBeSmallPicture(bytes: Uint8Array, mostSide: number): void {
  const stated = statedSize(bytes);
  if (!stated) throw new FormatError('picture.kind', 'this picture does not say how large it is: save it as a PNG');
  const [width, height] = stated.size;
  if (width > mostSide || height > mostSide)
    throw new FormatError(
      'picture.large',
      `this picture is ${width} × ${height} pixels; up to ${mostSide} along each side are taken here`,
    );
}

/**
 * Decodes a PNG or JPEG into canonical pixels: sRGB, straight alpha, eight bits. The same bits on every machine, which
 * a browser's own decoder does not promise.
 * @throws FormatError for other formats, and for what cannot be decoded.
 */
export function readPicture(bytes: Uint8Array): Texture {
  if (bytes.length === 0) throw new FormatError('file.empty', 'this file is empty');
  mustBeLikely(bytes);
  try {
    if (isPng(bytes)) return fromPng(plainPng(bytes));
    if (isJpeg(bytes)) {
      const { width, height, data } = jpeg.decode(bytes, {
        useTArray: true,
        formatAsRGBA: true,
        maxResolutionInMP: MOST_PIXELS / 1e6,
      });
      mustFit(width, height);
      return { width, height, rgba: data };
    }
  } catch (error) {
    throw error instanceof FormatError ? error : undecodable(error);
  }
  throw new FormatError('picture.kind', 'pictures are read from PNG and JPEG; save it as one of these');
}

/** The same, WebP too. @throws FormatError as {@link readPicture} does. */
export async function importPicture(bytes: Uint8Array, fromWebp: WebpDecoder): Promise<Texture> {
  if (bytes.length > 0 && !looksLikePicture(bytes))
    throw new FormatError('picture.kind', 'pictures are read from PNG, JPEG and WebP; save it as one of these');
  if (!isWebp(bytes)) return readPicture(bytes);
  mustBeLikely(bytes);
  try {
    const { width, height, rgba } = await fromWebp(bytes);
    mustFit(width, height);
    return { width, height, rgba };
  } catch (error) {
    throw error instanceof FormatError ? error : undecodable(error);
  }
}
