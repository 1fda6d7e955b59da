import { decode as decodePng } from 'fast-png';
import jpeg from 'jpeg-js';
import type { Texture } from '../geometry/index.ts';
import { FormatError } from './errors.ts';

const MOST_PIXELS = 8192 * 8192;

function fromPng(bytes: Uint8Array): Texture {
  const png = decodePng(bytes);
  const { width, height, channels, depth, data, palette } = png;
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

/**
 * Decodes a PNG or JPEG into canonical pixels: sRGB, straight alpha, eight bits. The same bits on every machine, which
 * a browser's own decoder does not promise.
 * @throws FormatError for other formats, and for what cannot be decoded.
 */
export function readPicture(bytes: Uint8Array): Texture {
  try {
    if (bytes[0] === 0x89 && bytes[1] === 0x50) return fromPng(bytes);
    if (bytes[0] === 0xff && bytes[1] === 0xd8) {
      const { width, height, data } = jpeg.decode(bytes, {
        useTArray: true,
        formatAsRGBA: true,
        maxResolutionInMP: MOST_PIXELS / 1e6,
      });
      return { width, height, rgba: data };
    }
  } catch (error) {
    throw new FormatError(`a picture could not be decoded: ${(error as Error).message}`);
  }
  throw new FormatError('pictures are read from PNG and JPEG; save it as one of these');
}
