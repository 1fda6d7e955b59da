import { FormatError } from '../errors.ts';

/** A file in a zip, as the zip's own index has it. */
export interface ZipEntry {
  readonly name: string;
  readonly packed: number;
  readonly unpacked: number;
}

const [END, ENTRY, LOCAL] = [0x06054b50, 0x02014b50, 0x04034b50];
const END_LENGTH = 22;
/** A remark at a zip's end is at most so long. */
const MOST_REMARK = 0xffff;

/**
 * Reads a zip's index, without unpacking anything.
 * @throws FormatError when it is no zip, was cut short, or is packed in a way that no parcel is.
 */
export function zipIndex(bytes: Uint8Array): ZipEntry[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let end = bytes.length - END_LENGTH;
  const last = Math.max(0, end - MOST_REMARK);
  while (end >= last && view.getUint32(end, true) !== END) end--;
  if (end < last || end < 0)
    throw new FormatError('parcel.none', 'this is not a parcel, or it was cut short: hand the effect over again');
  const count = view.getUint16(end + 10, true);
  let at = view.getUint32(end + 16, true);
  const entries: ZipEntry[] = [];
  const cut = () => new FormatError('parcel.index', "this parcel's index is damaged: hand the effect over again");
  for (let n = 0; n < count; n++) {
    if (at + 46 > bytes.length || view.getUint32(at, true) !== ENTRY) throw cut();
    const [flags, method] = [view.getUint16(at + 8, true), view.getUint16(at + 10, true)];
    const [packed, unpacked] = [view.getUint32(at + 20, true), view.getUint32(at + 24, true)];
    const [nameLength, extra, remark] = [28, 30, 32].map((field) => view.getUint16(at + field, true)) as [
      number,
      number,
      number,
    ];
    const local = view.getUint32(at + 42, true);
    if (at + 46 + nameLength > bytes.length) throw cut();
    const name = new TextDecoder().decode(bytes.subarray(at + 46, at + 46 + nameLength));
    if (flags & 1) throw new FormatError('parcel.locked', 'this parcel has a password: parcels have none');
    if (method !== 0 && method !== 8)
      throw new FormatError('parcel.method', 'this zip is packed in a way that no parcel is');
    if (local + 30 > bytes.length || view.getUint32(local, true) !== LOCAL || local + packed > bytes.length)
      throw new FormatError('parcel.place', `"${name.slice(0, 60)}" is not where this parcel's index says`);
    entries.push({ name, packed, unpacked });
    at += 46 + nameLength + extra + remark;
  }
  return entries;
}
