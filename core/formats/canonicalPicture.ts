import * as z from '../zod/index.ts';
import type { Texture } from '../geometry/index.ts';
import { readContainer, writeContainer } from './container.ts';
import { FormatError } from './errors.ts';

/** Pixels a picture may have along each side. */
export const MOST_SIDE = 8192;

const dataSchema = z.strictObject({
  width: z.number().int().min(1).max(MOST_SIDE),
  height: z.number().int().min(1).max(MOST_SIDE),
});

/** Canonical bytes of a picture: equal pixels give equal bytes, so that their hash names them. */
export const writePicture = ({ width, height, rgba }: Texture): Uint8Array<ArrayBuffer> =>
  writeContainer('picture', { width, height }, { rgba });

/** Reads canonical bytes back. @throws FormatError when they do not hold a whole picture. */
export function readCanonicalPicture(bytes: Uint8Array): Texture {
  const { kind, data, arrays } = readContainer(bytes);
  const parsed = dataSchema.safeParse(data);
  if (kind !== 'picture' || !parsed.success) throw new FormatError('picture.none', 'this asset is not a picture');
  const { width, height } = parsed.data;
  const { rgba } = arrays;
  if (!(rgba instanceof Uint8Array) || rgba.length !== width * height * 4)
    throw new FormatError('picture.pixels', 'this picture is damaged: it has too few or too many pixels');
  return { width, height, rgba };
}
