import {
  checkAsset,
  hashName,
  importGlb,
  importPicture,
  looksLikePicture,
  writePicture,
  writeRig,
  type AssetKind,
  type ParcelAsset,
} from '@jinx/core/formats';
import { fromWebp } from '../webp.ts';

/** The one import: decodes a figure, a prop or a picture into canonical bytes, named by their hash. @throws FormatError */
export async function imported(bytes: Uint8Array, fileName: string): Promise<ParcelAsset> {
  const isPicture = looksLikePicture(bytes) || /\.(png|jpe?g|webp)$/i.test(fileName);
  const kind: AssetKind = isPicture ? 'picture' : 'rig';
  const name = fileName.replace(/\.(glb|png|jpe?g|webp)$/i, '').slice(0, 80) || (isPicture ? 'picture' : 'figure');
  const canonical = isPicture
    ? writePicture(await importPicture(bytes, fromWebp))
    : writeRig(await importGlb(bytes, name));
  // What was just written of a picture is whole; reading it again would take as much memory as it has.
  if (!isPicture) checkAsset(kind, canonical);
  return { hash: hashName(canonical), name, kind, licence: '', bytes: canonical };
}
