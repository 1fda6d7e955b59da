import { deflate } from './deflate.ts';
import { joined } from './joined.ts';

const SIGNATURE = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];
const RGBA = 6;

/** Of every byte, what it adds to a checksum. */
const CHECKS = Uint32Array.from({ length: 256 }, (_, byte) => {
  let check = byte;
  for (let bit = 0; bit < 8; bit++) check = check & 1 ? 0xedb88320 ^ (check >>> 1) : check >>> 1;
  return check;
});
function checksum(bytes: Uint8Array): number {
  let check = 0xffffffff;
  for (let n = 0; n < bytes.length; n++) check = CHECKS[(check ^ bytes[n]!) & 255]! ^ (check >>> 8);
  return ~check >>> 0;
}

function chunk(name: string, data: Uint8Array): Uint8Array {
  const out = new Uint8Array(12 + data.length);
  const view = new DataView(out.buffer);
  view.setUint32(0, data.length);
  for (let n = 0; n < 4; n++) out[4 + n] = name.charCodeAt(n);
  out.set(data, 8);
  view.setUint32(8 + data.length, checksum(out.subarray(4, 8 + data.length)));
  return out;
}

/** Rows as PNG has them, none filtered; numbers of 16 bits with their upper byte first. */
function rowsOf(data: Uint8Array | Uint16Array, height: number): Uint8Array<ArrayBuffer> {
  const words = data.length / height;
  const bytes = words * data.BYTES_PER_ELEMENT;
  const rows = new Uint8Array((bytes + 1) * height);
  for (let y = 0; y < height; y++) {
    const [from, to] = [y * words, y * (bytes + 1) + 1];
    if (data instanceof Uint8Array) rows.set(data.subarray(from, from + words), to);
    else
      for (let x = 0; x < words; x++) {
        rows[to + 2 * x] = data[from + x]! >> 8;
        rows[to + 2 * x + 1] = data[from + x]! & 255;
      }
  }
  return rows;
}

/** A PNG of four channels (PNG 1.2), of 8 bits or of 16. */
export async function writeFilmPng(
  width: number,
  height: number,
  data: Uint8Array | Uint16Array,
): Promise<Uint8Array<ArrayBuffer>> {
  const head = new Uint8Array(13);
  const view = new DataView(head.buffer);
  view.setUint32(0, width);
  view.setUint32(4, height);
  head.set([data instanceof Uint16Array ? 16 : 8, RGBA], 8);
  return joined(
    Uint8Array.from(SIGNATURE),
    chunk('IHDR', head),
    chunk('IDAT', await deflate(rowsOf(data, height))),
    chunk('IEND', new Uint8Array(0)),
  );
}
