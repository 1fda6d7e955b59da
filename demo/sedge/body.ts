import type { Vec3 } from '@jinx/core/maths';

/** A limb: a rounded cone from `a` to `b`; `flat` narrows it front to back. */
interface Limb {
  readonly a: Vec3;
  readonly b: Vec3;
  readonly ra: number;
  readonly rb: number;
  readonly flat?: number;
}

const both = (limb: Limb): Limb[] => [
  limb,
  { ...limb, a: [-limb.a[0], limb.a[1], limb.a[2]], b: [-limb.b[0], limb.b[1], limb.b[2]] },
];

const LIMBS: readonly Limb[] = [
  // trunk
  { a: [-0.055, 0.95, 0], b: [0.055, 0.95, 0], ra: 0.115, rb: 0.115, flat: 0.85 },
  { a: [0, 1.0, 0.005], b: [0, 1.16, 0.01], ra: 0.118, rb: 0.112, flat: 0.8 },
  { a: [-0.05, 1.28, 0.005], b: [0.05, 1.28, 0.005], ra: 0.125, rb: 0.125, flat: 0.78 },
  { a: [-0.13, 1.4, -0.012], b: [0.13, 1.4, -0.012], ra: 0.066, rb: 0.066 },
  { a: [0, 1.4, -0.03], b: [0, 1.56, 0], ra: 0.06, rb: 0.046 },
  // head, jaw, nose, and hair drawn back into a knot
  { a: [0, 1.635, 0.005], b: [0, 1.69, 0], ra: 0.084, rb: 0.092 },
  { a: [0, 1.575, 0.035], b: [0, 1.6, 0.03], ra: 0.043, rb: 0.06 },
  { a: [0, 1.625, 0.095], b: [0, 1.65, 0.088], ra: 0.012, rb: 0.009 },
  { a: [0, 1.71, -0.03], b: [0, 1.7, -0.05], ra: 0.09, rb: 0.075 },
  { a: [0, 1.735, -0.125], b: [0, 1.7, -0.15], ra: 0.044, rb: 0.032 },
  // a tunic's short skirt
  { a: [-0.035, 0.95, 0], b: [-0.05, 0.76, 0.005], ra: 0.125, rb: 0.135, flat: 0.92 },
  { a: [0.035, 0.95, 0], b: [0.05, 0.76, 0.005], ra: 0.125, rb: 0.135, flat: 0.92 },
  ...(
    [
      { a: [0.155, 1.405, -0.012], b: [0.21, 1.375, -0.012], ra: 0.066, rb: 0.058 },
      { a: [0.18, 1.4, -0.012], b: [0.38, 1.22, -0.015], ra: 0.056, rb: 0.042 },
      { a: [0.38, 1.22, -0.015], b: [0.45, 1.16, -0.008], ra: 0.043, rb: 0.046 },
      { a: [0.44, 1.165, -0.008], b: [0.56, 1.06, 0.01], ra: 0.046, rb: 0.031 },
      { a: [0.575, 1.045, 0.012], b: [0.615, 1.0, 0.02], ra: 0.034, rb: 0.034, flat: 0.8 },
      { a: [0.62, 0.995, 0.02], b: [0.655, 0.955, 0.035], ra: 0.028, rb: 0.02 },
      { a: [0.585, 1.02, 0.04], b: [0.615, 0.985, 0.062], ra: 0.016, rb: 0.012 },
      { a: [0.093, 0.9, 0], b: [0.1, 0.52, 0.012], ra: 0.092, rb: 0.06 },
      { a: [0.1, 0.5, 0.014], b: [0.1, 0.38, -0.014], ra: 0.06, rb: 0.062 },
      { a: [0.1, 0.38, -0.012], b: [0.105, 0.1, -0.018], ra: 0.06, rb: 0.044 },
      { a: [0.1, 0.4, -0.002], b: [0.1, 0.36, -0.004], ra: 0.068, rb: 0.068 },
      { a: [0.105, 0.05, -0.05], b: [0.112, 0.045, 0.06], ra: 0.046, rb: 0.044 },
      { a: [0.113, 0.036, 0.07], b: [0.12, 0.03, 0.15], ra: 0.042, rb: 0.03 },
    ] satisfies Limb[]
  ).flatMap(both),
];

/** Signed distance to a rounded cone, near enough for building a mesh. */
function distanceTo({ a, b, ra, rb, flat = 1 }: Limb, p: Vec3): number {
  const pz = (p[2] - a[2]) / flat;
  const [dx, dy, dz] = [b[0] - a[0], b[1] - a[1], (b[2] - a[2]) / flat];
  const [px, py] = [p[0] - a[0], p[1] - a[1]];
  const t = Math.min(1, Math.max(0, (px * dx + py * dy + pz * dz) / (dx * dx + dy * dy + dz * dz)));
  const distance = Math.hypot(px - dx * t, py - dy * t, pz - dz * t) - (ra + (rb - ra) * t);
  return distance * flat;
}

/** How softly limbs grow together, in metres. */
const BLEND = 0.028;

/** Signed distance to Sedge's body at rest: below 0 inside. */
export function bodyDistance(p: Vec3): number {
  let sum = 0;
  let nearest = Infinity;
  for (const limb of LIMBS) {
    const d = distanceTo(limb, p);
    nearest = Math.min(nearest, d);
    sum += Math.exp(-d / (BLEND / 3));
    if (!Number.isFinite(sum)) return nearest;
  }
  return sum > 0 ? -(BLEND / 3) * Math.log(sum) : nearest;
}

export interface Mesh {
  positions: Vec3[];
  triangles: [number, number, number][];
}

/**
 * Meshes a signed distance by surface nets (Gibson, 1998, Constrained Elastic Surface Nets): one vertex a cell that
 * the surface crosses, at the mean of its crossings.
 */
export function surfaceNets(distance: (p: Vec3) => number, low: Vec3, high: Vec3, cell: number): Mesh {
  const size = low.map((value, axis) => Math.ceil((high[axis]! - value) / cell) + 1) as [number, number, number];
  const index = (x: number, y: number, z: number) => x + size[0] * (y + size[1] * z);
  const point = (x: number, y: number, z: number): Vec3 => [low[0] + x * cell, low[1] + y * cell, low[2] + z * cell];
  const values = new Float32Array(size[0] * size[1] * size[2]);
  for (let z = 0; z < size[2]; z++)
    for (let y = 0; y < size[1]; y++)
      for (let x = 0; x < size[0]; x++) values[index(x, y, z)] = distance(point(x, y, z));

  const positions: Vec3[] = [];
  const vertexOf = new Map<number, number>();
  const corners = [0, 1, 2, 3, 4, 5, 6, 7].map((k) => [k & 1, (k >> 1) & 1, k >> 2] as const);
  for (let z = 0; z < size[2] - 1; z++)
    for (let y = 0; y < size[1] - 1; y++)
      for (let x = 0; x < size[0] - 1; x++) {
        let crossings = 0;
        const sum = [0, 0, 0];
        for (const [i, a] of corners.entries())
          for (let axis = 0; axis < 3; axis++) {
            if (a[axis] === 1) continue;
            const b = corners[i + (1 << axis)]!;
            const va = values[index(x + a[0], y + a[1], z + a[2])]!;
            const vb = values[index(x + b[0], y + b[1], z + b[2])]!;
            if (va < 0 === vb < 0) continue;
            const t = va / (va - vb);
            crossings++;
            for (let c = 0; c < 3; c++) sum[c]! += a[c]! + (b[c]! - a[c]!) * t;
          }
        if (crossings === 0) continue;
        vertexOf.set(index(x, y, z), positions.length);
        positions.push(point(x + sum[0]! / crossings, y + sum[1]! / crossings, z + sum[2]! / crossings));
      }

  const triangles: [number, number, number][] = [];
  const quad = (a: number, b: number, c: number, d: number, isFlipped: boolean) => {
    const [p, q, r, s] = [a, b, c, d].map((cellIndex) => vertexOf.get(cellIndex)!) as [
      number,
      number,
      number,
      number,
    ];
    triangles.push(
      ...((isFlipped
        ? [
            [p, r, q],
            [p, s, r],
          ]
        : [
            [p, q, r],
            [p, r, s],
          ]) as [number, number, number][]),
    );
  };
  for (let z = 1; z < size[2] - 1; z++)
    for (let y = 1; y < size[1] - 1; y++)
      for (let x = 1; x < size[0] - 1; x++) {
        const here = values[index(x, y, z)]! < 0;
        if (here !== values[index(x + 1, y, z)]! < 0)
          quad(index(x, y - 1, z - 1), index(x, y, z - 1), index(x, y, z), index(x, y - 1, z), !here);
        if (here !== values[index(x, y + 1, z)]! < 0)
          quad(index(x - 1, y, z - 1), index(x - 1, y, z), index(x, y, z), index(x, y, z - 1), !here);
        if (here !== values[index(x, y, z + 1)]! < 0)
          quad(index(x - 1, y - 1, z), index(x, y - 1, z), index(x, y, z), index(x - 1, y, z), !here);
      }
  return { positions, triangles };
}

/** Outward unit normal of the body at a point of its surface. */
export function bodyNormal(p: Vec3): Vec3 {
  const h = 0.004;
  const slope = (axis: number) => {
    const ahead = p.map((x, i) => (i === axis ? x + h : x)) as unknown as Vec3;
    const behind = p.map((x, i) => (i === axis ? x - h : x)) as unknown as Vec3;
    return bodyDistance(ahead) - bodyDistance(behind);
  };
  const n = [slope(0), slope(1), slope(2)];
  const size = Math.hypot(...n) || 1;
  return [n[0]! / size, n[1]! / size, n[2]! / size];
}
