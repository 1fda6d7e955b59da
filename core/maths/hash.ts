/**
 * Counter-based random numbers: every draw is a hash of who asks and for what, so order and threads do not matter.
 * The mixing function is `lowbias32` (Wellons, 2018, Prospecting for Hash Functions). Test vectors: docs/definitions.md.
 */

/** Mixes 32 bits so that each input bit reaches every output bit. */
export function mix(x: number): number {
  let h = x | 0;
  h ^= h >>> 16;
  h = Math.imul(h, 0x7feb352d);
  h ^= h >>> 15;
  h = Math.imul(h, 0x846ca68b);
  h ^= h >>> 16;
  return h >>> 0;
}

/** Hash of an ordered pair of 32-bit numbers. */
export const hash2 = (a: number, b: number): number => mix(mix(a) ^ Math.imul(b + 1, 0x9e3779b9));

/** Key of the particle of a birth number in a lineage: the hash of an effect's seed and a layer's salt. */
export const keyOf = (lineage: number, birthNumber: number): number => hash2(lineage, birthNumber);

/** Key of a particle: the same through reordering, renaming and import. */
export const particleKey = (seed: number, salt: number, birthNumber: number): number =>
  keyOf(hash2(seed, salt), birthNumber);

/** A number in 0 ≤ u < 1 with 24 bits, for one purpose (`slot`) of one particle. Exact in f32. */
export const draw = (key: number, slot: number): number => (hash2(key, slot) >>> 8) / 16777216;

/** The slot of a named draw (FNV-1a, Fowler, Noll and Vo). */
export function slotOf(name: string): number {
  let h = 0x811c9dc5;
  for (let i = 0; i < name.length; i++) h = Math.imul(h ^ name.charCodeAt(i), 0x01000193);
  return h >>> 0;
}
