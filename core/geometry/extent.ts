type Corner = [x: number, y: number, z: number];

/** A box around a mesh at rest, metres. */
export function restExtent(positions: Float32Array): { readonly low: Corner; readonly high: Corner } {
  const low: Corner = [Infinity, Infinity, Infinity];
  const high: Corner = [-Infinity, -Infinity, -Infinity];
  positions.forEach((value, i) => {
    low[i % 3] = Math.min(low[i % 3]!, value);
    high[i % 3] = Math.max(high[i % 3]!, value);
  });
  return { low, high };
}

/** The length of a mesh's longest side, metres; 1 for one without any extent. */
export function longestSide(positions: Float32Array): number {
  const { low, high } = restExtent(positions);
  const longest = Math.max(...high.map((value, axis) => value - low[axis]!));
  return longest > 0 && longest < Infinity ? longest : 1;
}
