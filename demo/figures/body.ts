import { type Vec3, mapAxes } from '@jinx/core/maths';

/** A limb: a rounded cone from `a` to `b`; `flat` narrows it front to back. */
export interface Limb {
  readonly a: Vec3;
  readonly b: Vec3;
  readonly ra: number;
  readonly rb: number;
  readonly flat?: number;
}

/** A limb and its mirror image. */
export const both = (limb: Limb): Limb[] => [
  limb,
  { ...limb, a: [-limb.a[0], limb.a[1], limb.a[2]], b: [-limb.b[0], limb.b[1], limb.b[2]] },
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

/** Signed distance to limbs that grow together over `blend` metres: below 0 inside. */
export function bodyDistance(limbs: readonly Limb[], blend: number, p: Vec3): number {
  let sum = 0;
  let nearest = Infinity;
  for (const limb of limbs) {
    const d = distanceTo(limb, p);
    nearest = Math.min(nearest, d);
    sum += Math.exp(-d / (blend / 3));
    if (!Number.isFinite(sum)) return nearest;
  }
  return sum > 0 ? -(blend / 3) * Math.log(sum) : nearest;
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

/** Outward unit normal at a point of a signed distance's surface. */
export function normalOf(distance: (p: Vec3) => number, p: Vec3): Vec3 {
  const h = 0.004;
  const slope = (axis: number) => {
    const ahead = mapAxes(p, (x, i) => (i === axis ? x + h : x));
    const behind = mapAxes(p, (x, i) => (i === axis ? x - h : x));
    return distance(ahead) - distance(behind);
  };
  const n = [slope(0), slope(1), slope(2)];
  const size = Math.hypot(...n) || 1;
  return [n[0]! / size, n[1]! / size, n[2]! / size];
}
