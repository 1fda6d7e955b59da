/** A direction of length 1 in 32 bits: its octahedron unfolded to a square of 65,536 steps a side (Cigolle et al., 2014). */
export function packDirection(x: number, y: number, z: number): number {
  const size = Math.abs(x) + Math.abs(y) + Math.abs(z);
  if (!(size > 0)) return packDirection(0, 1, 0);
  const u = x / size;
  const v = z / size;
  if (y >= 0) return (whole(u) | (whole(v) << 16)) >>> 0;
  return (whole((1 - Math.abs(v)) * (u < 0 ? -1 : 1)) | (whole((1 - Math.abs(u)) * (v < 0 ? -1 : 1)) << 16)) >>> 0;
}

/** The whole step at which a coordinate from −1 to 1 lies. */
function whole(value: number): number {
  return Math.floor((value * 0.5 + 0.5) * 65535 + 0.5);
}

/** Writes the direction that was packed, within a ten-thousandth of a turn. */
export function unpackDirectionInto(out: Float64Array, o: number, packed: number): void {
  let u = ((packed & 0xffff) / 65535) * 2 - 1;
  let v = ((packed >>> 16) / 65535) * 2 - 1;
  const y = 1 - Math.abs(u) - Math.abs(v);
  if (y < 0) [u, v] = [(1 - Math.abs(v)) * (u < 0 ? -1 : 1), (1 - Math.abs(u)) * (v < 0 ? -1 : 1)];
  const size = Math.sqrt(u * u + y * y + v * v);
  out[o] = u / size;
  out[o + 1] = y / size;
  out[o + 2] = v / size;
}

/** Writes two directions at right angles to one of length 1, and to each other (Duff et al., 2017). */
export function acrossInto(u: Float64Array, v: Float64Array, way: ArrayLike<number>): void {
  const [x, y, z] = [way[0]!, way[1]!, way[2]!];
  const sign = z >= 0 ? 1 : -1;
  const a = -1 / (sign + z);
  const b = x * y * a;
  u[0] = 1 + sign * x * x * a;
  u[1] = sign * b;
  u[2] = -sign * x;
  v[0] = b;
  v[1] = sign + y * y * a;
  v[2] = -y;
}

/** Writes two directions at right angles to one of length 1 and to each other: the first level, the second upward. */
export function levelInto(level: Float64Array, upward: Float64Array, x: number, y: number, z: number): void {
  const flat = Math.sqrt(x * x + z * z);
  level[0] = flat > 1e-6 ? z / flat : 1;
  level[1] = 0;
  level[2] = flat > 1e-6 ? -x / flat : 0;
  // The way × level.
  upward[0] = y * level[2]!;
  upward[1] = z * level[0]! - x * level[2]!;
  upward[2] = -y * level[0]!;
}
