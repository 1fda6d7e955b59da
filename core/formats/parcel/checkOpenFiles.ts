import { readCanonicalPicture } from '../canonicalPicture.ts';
import { readRig, writeRig } from '../canonicalRig.ts';
import { FormatError } from '../errors.ts';
import { writeGlb } from '../glbOut.ts';
import { importGlb } from '../gltf.ts';
import { readPicture } from '../pictures.ts';
import type { ReadAsset, ReadParcel } from './parcel.ts';

const isSame = (a: Uint8Array, b: Uint8Array): boolean =>
  a.length === b.length && a.every((value, n) => value === b[n]);

/** Whether the file for other programs shows what the canonical bytes hold. @throws FormatError when it cannot be read. */
async function isTrue({ kind, bytes }: ReadAsset, open: Uint8Array): Promise<boolean> {
  if (kind === 'picture') {
    const [shown, kept] = [readPicture(open), readCanonicalPicture(bytes)];
    return shown.width === kept.width && isSame(shown.rgba, kept.rgba);
  }
  const canonical = async (glb: Uint8Array) => writeRig(await importGlb(glb, ''));
  const kept = await writeGlb(readRig(bytes));
  return isSame(kept, open) || isSame(await canonical(open), await canonical(kept));
}

/**
 * Checks that a parcel's PNG and GLB files show what its canonical bytes hold: nobody is handed one thing to look at and
 * another to play.
 * @throws FormatError that names the file.
 */
export async function checkOpenFiles({ assets }: ReadParcel): Promise<void> {
  for (const asset of assets)
    if (asset.open && !(await isTrue(asset, asset.open.bytes)))
      throw new FormatError(
        'parcel.differs',
        `"${asset.open.file}" in this parcel is not what its canonical bytes of "${asset.name}" hold`,
      );
}
