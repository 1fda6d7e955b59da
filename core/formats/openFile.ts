import { encode } from 'fast-png';
import type { Texture } from '../geometry/index.ts';
import { readCanonicalPicture } from './canonicalPicture.ts';
import { readRig } from './canonicalRig.ts';
import { writeGlb } from './glbOut.ts';
import type { AssetKind } from './parcel/manifest.ts';

/** A picture as PNG: the same pixels, eight bits, straight alpha. */
export const writePng = ({ width, height, rgba }: Texture): Uint8Array =>
  encode({ width, height, channels: 4, data: rgba });

/** An asset as other programs read it: a picture as PNG, a figure, prop or mesh as GLB. @throws FormatError when it is damaged. */
export async function openFile(kind: AssetKind, bytes: Uint8Array): Promise<Uint8Array> {
  return kind === 'rig' ? writeGlb(readRig(bytes)) : writePng(readCanonicalPicture(bytes));
}
