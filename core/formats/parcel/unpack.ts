import { unzipSync } from 'fflate';
import { FormatError } from '../errors.ts';
import { MOST_PARCEL_ASSETS, MOST_PARCEL_EFFECTS } from './manifest.ts';
import { zipIndex, type ZipEntry } from './zipIndex.ts';

/** What a parcel may hold to be read: bytes of its file, and bytes of all that is in it. */
export const MOST_PARCEL_BYTES = 128 * 1024 * 1024;
export const MOST_PARCEL_UNPACKED = 512 * 1024 * 1024;

const MOST_TEXT = 16 * 1024 * 1024;
/** An effect and its picture, an asset and the same for other programs, the manifest. */
const MOST_FILES = 2 * (MOST_PARCEL_ASSETS + MOST_PARCEL_EFFECTS) + 1;
/** Nothing that is packed unpacks to more times its size. */
const MOST_RATIO = 1040;
/** No document does: much of it is the same, not nearly all. */
const MOST_TEXT_RATIO = 250;

const isText = (name: string) => name.endsWith('.json');
const told = (name: string) => `"${name.slice(0, 60)}"`;

/** Refuses a zip by its index, before anything of it is unpacked. */
function mustBeModest(entries: readonly ZipEntry[]): void {
  if (entries.length > MOST_FILES)
    throw new FormatError('parcel.files', `this parcel has ${entries.length} files; up to ${MOST_FILES} are read`);
  const size = entries.reduce((sum, { unpacked }) => sum + unpacked, 0);
  if (size > MOST_PARCEL_UNPACKED)
    throw new FormatError('parcel.unpacked', 'this parcel unpacks to more than a parcel may hold');
  const names = new Set<string>();
  for (const { name, packed, unpacked } of entries) {
    if (/^[/\\]|^[a-z]:|\\|(^|\/)\.\.?(\/|$)|\0/i.test(name))
      throw new FormatError('parcel.path', `this parcel has a file that would lead out of it: ${told(name)}`);
    // Names that a disk may take for the same.
    const plain = name.normalize('NFC').toLowerCase();
    if (names.has(plain)) throw new FormatError('parcel.twice', `this parcel has ${told(name)} twice`);
    names.add(plain);
    if (isText(name) && unpacked > MOST_TEXT)
      throw new FormatError('parcel.text', `${told(name)} in this parcel is longer than a document may be`);
    if (unpacked > packed * (isText(name) ? MOST_TEXT_RATIO : MOST_RATIO) + 64)
      throw new FormatError('parcel.ratio', `${told(name)} in this parcel would unpack to far more than it is`);
  }
}

/** Refuses a parcel by its size and its index, as reading it does. @throws FormatError */
export function mustFitParcel(bytes: Uint8Array): void {
  if (bytes.length > MOST_PARCEL_BYTES)
    throw new FormatError('parcel.large', `this parcel is over ${MOST_PARCEL_BYTES / 1048576} MB`);
  mustBeModest(zipIndex(bytes));
}

/** The files of a parcel by their names, none of them looked at yet. @throws FormatError */
export function unpack(bytes: Uint8Array): Readonly<Record<string, Uint8Array>> {
  mustFitParcel(bytes);
  try {
    return unzipSync(bytes);
  } catch {
    throw new FormatError('parcel.damaged', 'this parcel is damaged, or was cut short: hand the effect over again');
  }
}
