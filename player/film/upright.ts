import { straighten, turnOver } from '@jinx/core/formats';
import type { ShotLayer } from '@jinx/stage';

/** A picture of bytes with its rows from the top, in place; with straight colours, if it is to have those. */
export function upright({ picture }: ShotLayer, height: number, isStraight: boolean): Uint8Array<ArrayBuffer> {
  if (!(picture instanceof Uint8Array)) throw new Error('there is no picture of bytes');
  turnOver(picture, height);
  if (isStraight) straighten(picture, 255);
  return picture;
}
