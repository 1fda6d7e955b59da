import type { Context } from 'koa';
import { bytesOf, PICTURE_BODY } from './body.ts';
import type { House } from './house.ts';

/** Sides of a thumbnail in pixels. */
const MOST_SIDE = 1024;

/** @throws Refusal where this is not a whole picture, or a large one. */
export const mustBeThumbnail = async ({ workers }: Pick<House, 'workers'>, bytes: Uint8Array): Promise<void> =>
  void (await workers.run('checkPicture', { bytes, mostSide: MOST_SIDE }));

/** The thumbnail in a request's body. @throws Refusal where it is none. */
export async function thumbnailIn(house: Pick<House, 'workers'>, context: Context): Promise<Uint8Array> {
  const bytes = await bytesOf(context, PICTURE_BODY);
  await mustBeThumbnail(house, bytes);
  return bytes;
}
