import { canonicalText, readJson } from '../document/index.ts';
import { FormatError } from './errors.ts';

/**
 * The container of canonical assets, little-endian:
 *
 * | bytes      | what                                                                                        |
 * | 0–3        | `JXA1`                                                                                      |
 * | 4–7        | length of the header, u32                                                                   |
 * | 8…         | header: canonical JSON {kind, data, arrays: [{name, type, length}]}, padded by spaces to 4  |
 * | then       | the arrays one after another, each padded to 4                                              |
 */
const MAGIC = 'JXA1';

const TYPES = { f32: Float32Array, u32: Uint32Array, u16: Uint16Array, u8: Uint8Array } as const;
type TypeName = keyof typeof TYPES;
export type NamedArrays = Record<string, Float32Array | Uint32Array | Uint16Array | Uint8Array>;

const MOST_BYTES = 256 * 1024 * 1024;
const padded = (length: number) => Math.ceil(length / 4) * 4;

function typeOf(array: NamedArrays[string]): TypeName {
  return array instanceof Float32Array
    ? 'f32'
    : array instanceof Uint32Array
      ? 'u32'
      : array instanceof Uint16Array
        ? 'u16'
        : 'u8';
}

export function writeContainer(kind: string, data: unknown, arrays: NamedArrays): Uint8Array<ArrayBuffer> {
  const entries = Object.entries(arrays).sort(([a], [b]) => (a < b ? -1 : 1));
  const described = entries.map(([name, array]) => ({ name, type: typeOf(array), length: array.length }));
  let text = canonicalText({ kind, data, arrays: described });
  const encoder = new TextEncoder();
  while (encoder.encode(text).length % 4 !== 0) text += ' ';
  const header = encoder.encode(text);
  const out = new Uint8Array(
    8 + header.length + entries.reduce((sum, [, array]) => sum + padded(array.byteLength), 0),
  );
  out.set(encoder.encode(MAGIC));
  new DataView(out.buffer).setUint32(4, header.length, true);
  out.set(header, 8);
  let at = 8 + header.length;
  for (const [, array] of entries) {
    out.set(new Uint8Array(array.buffer, array.byteOffset, array.byteLength), at);
    at += padded(array.byteLength);
  }
  return out;
}

/** @throws FormatError when the bytes are not such a container, whole. */
export function readContainer(bytes: Uint8Array): { kind: string; data: unknown; arrays: NamedArrays } {
  const broken = (code: string, why: string) => new FormatError(`asset.${code}`, `this asset is damaged: ${why}`);
  if (bytes.length < 8 || bytes.length > MOST_BYTES || new TextDecoder().decode(bytes.subarray(0, 4)) !== MAGIC)
    throw broken('start', 'it does not begin as one');
  const headerLength = new DataView(bytes.buffer, bytes.byteOffset).getUint32(4, true);
  if (headerLength > bytes.length - 8) throw broken('header', 'it ends within its header');
  let header: { kind?: unknown; data?: unknown; arrays?: unknown };
  try {
    header = readJson(
      new TextDecoder('utf-8', { fatal: true }).decode(bytes.subarray(8, 8 + headerLength)),
    ) as typeof header;
  } catch {
    throw broken('headerText', 'its header cannot be read');
  }
  if (
    typeof header !== 'object' ||
    header === null ||
    typeof header.kind !== 'string' ||
    !Array.isArray(header.arrays)
  )
    throw broken('headerShape', 'its header is incomplete');
  const arrays: NamedArrays = Object.create(null) as NamedArrays;
  let at = 8 + headerLength;
  for (const entry of header.arrays as { name?: unknown; type?: unknown; length?: unknown }[]) {
    const { name, type, length } = entry ?? {};
    if (
      typeof name !== 'string' ||
      typeof length !== 'number' ||
      !Number.isInteger(length) ||
      length < 0 ||
      typeof type !== 'string' ||
      !Object.hasOwn(TYPES, type)
    )
      throw broken('headerShape', 'its header is incomplete');
    const make = TYPES[type as TypeName];
    const size = length * make.BYTES_PER_ELEMENT;
    if (at + size > bytes.length) throw broken('short', 'it ends too soon');
    arrays[name] = new make(bytes.slice(at, at + size).buffer);
    at += padded(size);
  }
  if (at !== bytes.length) throw broken('long', 'something follows its end');
  return { kind: header.kind, data: header.data, arrays };
}
