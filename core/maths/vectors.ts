/** Small vectors and matrices in double precision. Matrices are 16 numbers, column by column, as in glTF. */

export type Vec3 = readonly [number, number, number];
export type Numbers = Float32Array | Float64Array | number[];

export const add = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const subtract = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const scale = (a: Vec3, s: number): Vec3 => [a[0] * s, a[1] * s, a[2] * s];
export const dot = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross = (a: Vec3, b: Vec3): Vec3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];

/** Makes three of three: what `f` makes of each, given its place (0 to 2). */
export const mapAxes = <T, U>([x, y, z]: readonly [T, T, T], f: (value: T, axis: number) => U): [U, U, U] => [
  f(x, 0),
  f(y, 1),
  f(z, 2),
];
export const AXES = [0, 1, 2] as const;
/** The three numbers from `at` of a list on. */
export const vec3At = (list: ArrayLike<number>, at = 0): [number, number, number] => [
  list[at]!,
  list[at + 1]!,
  list[at + 2]!,
];

/** Writes three numbers. */
export function setThree(out: Float64Array, x: number, y: number, z: number): void {
  out[0] = x;
  out[1] = y;
  out[2] = z;
}

export const length = (a: Vec3): number => Math.sqrt(dot(a, a));
/** The unit vector along `a`, or `otherwise` where `a` has no length. */
export function unit(a: Vec3, otherwise: Vec3 = [0, 1, 0]): Vec3 {
  const size = length(a);
  return size > 1e-12 ? scale(a, 1 / size) : otherwise;
}
export const mixVec = (a: Vec3, b: Vec3, t: number): Vec3 => [
  a[0] + (b[0] - a[0]) * t,
  a[1] + (b[1] - a[1]) * t,
  a[2] + (b[2] - a[2]) * t,
];

/** out[o..] = a[ai..] × b[bi..], three by four with an implied last row. */
export function multiplyInto(out: Numbers, o: number, a: Numbers, ai: number, b: Numbers, bi: number): void {
  for (let column = 0; column < 4; column++) {
    const x = b[bi + column * 4]!;
    const y = b[bi + column * 4 + 1]!;
    const z = b[bi + column * 4 + 2]!;
    const w = column === 3 ? 1 : 0;
    for (let row = 0; row < 3; row++)
      out[o + column * 4 + row] =
        a[ai + row]! * x + a[ai + 4 + row]! * y + a[ai + 8 + row]! * z + a[ai + 12 + row]! * w;
    out[o + column * 4 + 3] = w;
  }
}

/** Writes the matrix of a translation, a unit quaternion (x, y, z, w) and a scale. */
export function composeInto(
  out: Numbers,
  o: number,
  t: Numbers,
  ti: number,
  q: Numbers,
  qi: number,
  s: Numbers,
  si: number,
): void {
  const x = q[qi]!;
  const y = q[qi + 1]!;
  const z = q[qi + 2]!;
  const w = q[qi + 3]!;
  const [sx, sy, sz] = [s[si]!, s[si + 1]!, s[si + 2]!];
  out[o] = (1 - 2 * (y * y + z * z)) * sx;
  out[o + 1] = 2 * (x * y + z * w) * sx;
  out[o + 2] = 2 * (x * z - y * w) * sx;
  out[o + 3] = 0;
  out[o + 4] = 2 * (x * y - z * w) * sy;
  out[o + 5] = (1 - 2 * (x * x + z * z)) * sy;
  out[o + 6] = 2 * (y * z + x * w) * sy;
  out[o + 7] = 0;
  out[o + 8] = 2 * (x * z + y * w) * sz;
  out[o + 9] = 2 * (y * z - x * w) * sz;
  out[o + 10] = (1 - 2 * (x * x + y * y)) * sz;
  out[o + 11] = 0;
  out[o + 12] = t[ti]!;
  out[o + 13] = t[ti + 1]!;
  out[o + 14] = t[ti + 2]!;
  out[o + 15] = 1;
}

export const IDENTITY: readonly number[] = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];

export function transformPoint(m: Numbers, o: number, p: Vec3): Vec3 {
  return [
    m[o]! * p[0] + m[o + 4]! * p[1] + m[o + 8]! * p[2] + m[o + 12]!,
    m[o + 1]! * p[0] + m[o + 5]! * p[1] + m[o + 9]! * p[2] + m[o + 13]!,
    m[o + 2]! * p[0] + m[o + 6]! * p[1] + m[o + 10]! * p[2] + m[o + 14]!,
  ];
}

export function transformDirection(m: Numbers, o: number, p: Vec3): Vec3 {
  return [
    m[o]! * p[0] + m[o + 4]! * p[1] + m[o + 8]! * p[2],
    m[o + 1]! * p[0] + m[o + 5]! * p[1] + m[o + 9]! * p[2],
    m[o + 2]! * p[0] + m[o + 6]! * p[1] + m[o + 10]! * p[2],
  ];
}

/** The inverse of an affine matrix. @throws Error when it has no volume. */
export function invertAffine(m: Numbers, o = 0): Float64Array {
  const a: Vec3 = [m[o]!, m[o + 1]!, m[o + 2]!];
  const b: Vec3 = [m[o + 4]!, m[o + 5]!, m[o + 6]!];
  const c: Vec3 = [m[o + 8]!, m[o + 9]!, m[o + 10]!];
  const t: Vec3 = [m[o + 12]!, m[o + 13]!, m[o + 14]!];
  const volume = dot(a, cross(b, c));
  if (!(Math.abs(volume) > 1e-18)) throw new Error('a matrix with no volume cannot be inverted');
  const rows = [scale(cross(b, c), 1 / volume), scale(cross(c, a), 1 / volume), scale(cross(a, b), 1 / volume)];
  const out = new Float64Array(16);
  rows.forEach((row, index) => {
    for (let column = 0; column < 3; column++) out[column * 4 + index] = row[column]!;
    out[12 + index] = -dot(row, t);
  });
  out[15] = 1;
  return out;
}
