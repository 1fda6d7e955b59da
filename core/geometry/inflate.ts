/** Smallest share of a vertex's own way outward that its faces may leave it, so that a spike is not drawn out endlessly. */
const LEAST_OUTWARD = 0.3;

const lengthAt = (v: ArrayLike<number>, o: number): number =>
  Math.sqrt(v[o]! * v[o]! + v[o + 1]! * v[o + 1]! + v[o + 2]! * v[o + 2]!);

/**
 * A mesh's vertices moved outward by `metres`, so that its faces lie about so far off. Vertices in one place move as one
 * (a mesh is cut apart where its UVs are), each along the sum of its faces' normals weighted by area.
 */
export function inflated(positions: Float32Array, indices: Uint32Array, metres: number): Float32Array {
  if (metres === 0) return positions;
  const places = new Map<string, number>();
  const placeOf = Uint32Array.from({ length: positions.length / 3 }, (_, v) => {
    const name = `${positions[v * 3]},${positions[v * 3 + 1]},${positions[v * 3 + 2]}`;
    if (!places.has(name)) places.set(name, places.size);
    return places.get(name)!;
  });
  const sums = new Float64Array(places.size * 3);
  const faces = indices.length / 3;
  const normals = new Float64Array(faces * 3);
  for (let face = 0; face < faces; face++) {
    const [a, b, c] = [0, 1, 2].map((k) => indices[face * 3 + k]! * 3) as [number, number, number];
    const e = [0, 1, 2].map((axis) => positions[b + axis]! - positions[a + axis]!) as [number, number, number];
    const g = [0, 1, 2].map((axis) => positions[c + axis]! - positions[a + axis]!) as [number, number, number];
    const normal = [e[1] * g[2] - e[2] * g[1], e[2] * g[0] - e[0] * g[2], e[0] * g[1] - e[1] * g[0]];
    const size = lengthAt(normal, 0) || 1;
    for (let axis = 0; axis < 3; axis++) {
      normals[face * 3 + axis] = normal[axis]! / size;
      for (let k = 0; k < 3; k++) sums[placeOf[indices[face * 3 + k]!]! * 3 + axis]! += normal[axis]!;
    }
  }
  for (let place = 0; place < places.size; place++) {
    const o = place * 3;
    const size = lengthAt(sums, o) || 1;
    for (let axis = 0; axis < 3; axis++) sums[o + axis]! /= size;
  }
  // Where faces meet at an angle, the corner goes further than the faces do.
  const outward = new Float64Array(places.size).fill(1);
  for (let face = 0; face < faces; face++)
    for (let k = 0; k < 3; k++) {
      const place = placeOf[indices[face * 3 + k]!]!;
      let along = 0;
      for (let axis = 0; axis < 3; axis++) along += sums[place * 3 + axis]! * normals[face * 3 + axis]!;
      outward[place] = Math.min(outward[place]!, Math.max(LEAST_OUTWARD, along));
    }
  return Float32Array.from(
    positions,
    (x, i) => x + (sums[placeOf[Math.floor(i / 3)]! * 3 + (i % 3)]! * metres) / outward[placeOf[Math.floor(i / 3)]!]!,
  );
}
