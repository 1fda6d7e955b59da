type Numbers = Float64Array | Uint32Array | Int32Array | Uint8Array;

/** A list with the same beginning and room for `length` numbers, twice as many as before at least; itself where it has that room. */
export function grown<T extends Numbers>(list: T, length: number = list.length + 1): T {
  if (length <= list.length) return list;
  const Kind = list.constructor as new (length: number) => T;
  const larger = new Kind(Math.max(length, list.length * 2));
  larger.set(list);
  return larger;
}
