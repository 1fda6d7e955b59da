import { DocumentError, isFields, readJson } from '../document/index.ts';
import { FormatError } from './errors.ts';

/** Numbers that all lists of a file may have together: four for each that a figure at the limits of an import has. */
const MOST_ELEMENTS = 16_000_000;
const MOST_LISTS = 20_000;
/** Zeros that a file may ask for beside each of its own bytes: sparse shapes of a mesh that is in it. */
const MOST_ZEROS = 16;

/** What a GLB says of itself, its first part; null where that cannot be read, which its reader tells in its own words. */
function saidIn(bytes: Uint8Array): Record<string, unknown> | null {
  if (bytes.length < 20) return null;
  const length = new DataView(bytes.buffer, bytes.byteOffset).getUint32(12, true);
  if (length > bytes.length - 20)
    throw new FormatError(
      'glb.short',
      'this GLB file is damaged or incomplete: it ends before what it says of itself',
    );
  try {
    const said = readJson(new TextDecoder().decode(bytes.subarray(20, 20 + length)));
    return isFields(said) ? said : null;
  } catch (error) {
    if (error instanceof DocumentError)
      throw new FormatError(`glb.${error.code}`, `in this GLB file, ${error.message}`);
    throw error;
  }
}

const listIn = (said: Record<string, unknown>, name: string): Record<string, unknown>[] =>
  (Array.isArray(said[name]) ? said[name] : []).filter(isFields);

/** Bytes of one component of a list by its glTF component type, and components of one element by its type. */
const COMPONENT_BYTES: Readonly<Record<string, number>> = { 5120: 1, 5121: 1, 5122: 2, 5123: 2, 5125: 4, 5126: 4 };
const COMPONENTS: Readonly<Record<string, number>> = {
  SCALAR: 1,
  VEC2: 2,
  VEC3: 3,
  VEC4: 4,
  MAT2: 4,
  MAT3: 9,
  MAT4: 16,
};

/** The bytes that a tightly packed list takes. */
function bytesOfList({ count, componentType, type }: Record<string, unknown>): number {
  const one = (table: Readonly<Record<string, number>>, key: unknown) =>
    Object.hasOwn(table, String(key)) ? table[String(key)]! : 1;
  return (count as number) * one(COMPONENT_BYTES, componentType) * one(COMPONENTS, type);
}

/** Refuses a GLB that says it holds more than it can, before room is made for it. @throws FormatError */
export function mustNotBoast(bytes: Uint8Array): void {
  const said = saidIn(bytes);
  if (!said) return;
  const accessors = listIn(said, 'accessors');
  const isWild = (count: unknown) => typeof count !== 'number' || !Number.isInteger(count) || count < 0;
  if (accessors.some(({ count }) => isWild(count)))
    throw new FormatError('glb.count', 'a list of this GLB file does not say how long it is');
  const total = accessors.reduce((sum, { count }) => sum + (count as number), 0);
  if (total > MOST_ELEMENTS || accessors.length > MOST_LISTS)
    throw new FormatError('glb.large', 'this GLB file has more than is read: thin it out, or leave clips out');
  const outside = [...listIn(said, 'buffers'), ...listIn(said, 'images')].find(
    ({ uri }) => typeof uri === 'string' && !uri.startsWith('data:'),
  );
  if (outside)
    throw new FormatError('glb.outside', 'this GLB file needs other files beside it: export it as one file');
  // A list without a part of the file is zeros but for what a sparse list names: a few letters could ask for very much.
  const unbacked = accessors
    .filter(({ bufferView }) => bufferView === undefined)
    .reduce((sum, accessor) => sum + bytesOfList(accessor), 0);
  const views = listIn(said, 'bufferViews');
  const isBoasting = accessors.some((accessor) => {
    if (accessor['bufferView'] === undefined) return false;
    const view = views[Number(accessor['bufferView'])];
    const stride = Number(view?.['byteStride'] ?? 0);
    const count = accessor['count'] as number;
    const needed = stride > 0 ? Math.max(0, count - 1) * stride : bytesOfList(accessor);
    return !(Number(accessor['byteOffset'] ?? 0) + needed <= Number(view?.['byteLength']));
  });
  if (unbacked > bytes.length * MOST_ZEROS || isBoasting)
    throw new FormatError(
      'glb.boast',
      'a list of this GLB file says that it is longer than the file: export it again',
    );
  const room = listIn(said, 'buffers').map(({ byteLength }) => Number(byteLength));
  const overlong = views.some(({ buffer, byteOffset = 0, byteLength }) => {
    return !(Number(byteOffset) + Number(byteLength) <= (room[Number(buffer)] ?? 0));
  });
  if (overlong || room.some((length) => !(length <= bytes.length)))
    throw new FormatError('glb.view', 'this GLB file is damaged or incomplete: a part of it leads past its end');
}
