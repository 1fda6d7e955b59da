import type { Vec3 } from '@jinx/core/maths';
import type { Mesh } from './body.ts';
import type { Skeleton } from './joints.ts';

const SHARPNESS = 0.022;
const SMOOTHING_ROUNDS = 10;

function distanceToBone(p: Vec3, { at, end }: Skeleton['joints'][number]): number {
  const d = [end[0] - at[0], end[1] - at[1], end[2] - at[2]];
  const v = [p[0] - at[0], p[1] - at[1], p[2] - at[2]];
  const t = Math.min(
    1,
    Math.max(0, (v[0]! * d[0]! + v[1]! * d[1]! + v[2]! * d[2]!) / (d[0]! ** 2 + d[1]! ** 2 + d[2]! ** 2)),
  );
  return Math.hypot(v[0]! - d[0]! * t, v[1]! - d[1]! * t, v[2]! - d[2]! * t);
}

/** Weights of every bone for every vertex: by nearness to the bones, then smoothed along the surface. */
export function skinWeights({ positions, triangles }: Mesh, skeleton: Skeleton): Float64Array[] {
  const { joints } = skeleton;
  let weights = positions.map((p) => {
    const distances = joints.map((joint, bone) => (skeleton.mayMove(bone, p) ? distanceToBone(p, joint) : Infinity));
    const nearest = Math.min(...distances);
    const raw = Float64Array.from(distances, (d) => Math.exp(-(d - nearest) / SHARPNESS));
    const sum = raw.reduce((a, b) => a + b, 0);
    return raw.map((value) => value / sum);
  });
  const neighbours = positions.map(() => new Set<number>());
  for (const [a, b, c] of triangles)
    for (const [i, j] of [
      [a, b],
      [b, c],
      [c, a],
    ] as const) {
      neighbours[i]!.add(j);
      neighbours[j]!.add(i);
    }
  for (let round = 0; round < SMOOTHING_ROUNDS; round++)
    weights = weights.map((own, i) => {
      const mean = new Float64Array(joints.length);
      for (const j of neighbours[i]!)
        weights[j]!.forEach((value, bone) => (mean[bone]! += value / neighbours[i]!.size));
      return own.map((value, bone) => 0.5 * value + 0.5 * mean[bone]!);
    });
  return weights;
}

/** The four strongest bones and their weights, which sum to 1. */
export function strongestFour(weights: Float64Array): { joints: number[]; weights: number[] } {
  const order = [...weights.keys()].sort((a, b) => weights[b]! - weights[a]!).slice(0, 4);
  const sum = order.reduce((total, bone) => total + weights[bone]!, 0);
  const shares = order.map((bone) => weights[bone]! / sum);
  return { joints: order.map((bone, k) => (shares[k]! > 0 ? bone : 0)), weights: shares };
}
