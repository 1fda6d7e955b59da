import { listed, type Curve, type Key, type KeyPlace } from '../settings/index.ts';

/** Where a key stands on the ruler 0..1 for a particle that lives `life` seconds. */
export function placeOnLife(at: KeyPlace, life: number): number {
  const x = at.anchor === 'share' ? at.value : at.anchor === 'afterBirth' ? at.value / life : 1 - at.value / life;
  return at.anchor === 'share' ? x : x < 0 ? 0 : x > 1 ? 1 : x;
}

/** Where keys or stops stand, in order. `relative` when none is anchored in seconds. */
export interface Places {
  readonly relative: boolean;
  readonly places: readonly KeyPlace[];
  /** Their places on the ruler; rewritten for each life when some are anchored in seconds. */
  readonly x: Float64Array;
}

/** A curve ready to be read. */
export interface ReadyCurve extends Places {
  readonly y: Float64Array;
  readonly slopeIn: Float64Array;
  readonly slopeOut: Float64Array;
}

/** A key that is held becomes two: a second one, as high, stands where the next does, and the next one rules there. */
function withHeld(keys: readonly Key[]): readonly Key[] {
  return keys.flatMap((key, n) => {
    const next = keys[n + 1];
    if (!key.held || !next) return [key];
    const level = { ...key, slopeOut: 0 };
    return [level, { ...level, at: next.at, slopeIn: 0 }];
  });
}

export function readyCurve(curve: Curve): ReadyCurve {
  const rank = { afterBirth: 0, share: 1, beforeDeath: 2 } as const;
  const sorted = listed(curve.keys).map(({ item }) => item);
  sorted.sort((a, b) => placeOnLife(a.at, 1) - placeOnLife(b.at, 1) || rank[a.at.anchor] - rank[b.at.anchor]);
  const keys = withHeld(sorted);
  return {
    relative: keys.every((key) => key.at.anchor === 'share'),
    places: keys.map((key) => key.at),
    x: Float64Array.from(keys, (key) => key.at.value),
    y: Float64Array.from(keys, (key) => key.value),
    slopeIn: Float64Array.from(keys, (key) => key.slopeIn),
    slopeOut: Float64Array.from(keys, (key) => key.slopeOut),
  };
}

/** Sets keys anchored in seconds for one lifetime; a key never stands before the one ahead of it. */
export function fitToLife({ relative, places, x: xs }: Places, life: number): void {
  if (relative) return;
  for (let i = 0; i < xs.length; i++) {
    const x = placeOnLife(places[i]!, life);
    xs[i] = i > 0 && x < xs[i - 1]! ? xs[i - 1]! : x;
  }
}

/**
 * Value of a curve at `x`: cubic Hermite between keys, level beyond them; 1 when it has no keys.
 * With a key exactly at `x`, the later one rules.
 */
export function curveAt(curve: ReadyCurve, x: number): number {
  const { x: xs, y: ys, slopeIn, slopeOut } = curve;
  const last = xs.length - 1;
  if (last < 0) return 1;
  if (!(x > xs[0]!)) return ys[0]!;
  if (x >= xs[last]!) return ys[last]!;
  let i = 0;
  while (x >= xs[i + 1]!) i++;
  const width = xs[i + 1]! - xs[i]!;
  const t = (x - xs[i]!) / width;
  const u = 1 - t;
  return (
    ys[i]! * (1 + 2 * t) * u * u +
    ys[i + 1]! * t * t * (3 - 2 * t) +
    width * t * u * (slopeOut[i]! * u - slopeIn[i + 1]! * t)
  );
}

/** Integral of a relative curve from 0 to `x` ≥ 0, in closed form. */
export function curveIntegral(curve: ReadyCurve, x: number): number {
  const { x: xs, y: ys, slopeIn, slopeOut } = curve;
  const last = xs.length - 1;
  if (last < 0) return x;
  let sum = ys[0]! * Math.min(x, Math.max(0, xs[0]!));
  for (let i = 0; i < last && x > xs[i]!; i++) {
    const width = xs[i + 1]! - xs[i]!;
    if (!(width > 0)) continue;
    const t = Math.min(1, (x - xs[i]!) / width);
    const t2 = t * t;
    const t3 = t2 * t;
    const t4 = t2 * t2;
    sum +=
      width *
      (ys[i]! * (t - t3 + t4 / 2) +
        ys[i + 1]! * (t3 - t4 / 2) +
        width * (slopeOut[i]! * (t2 / 2 - (2 * t3) / 3 + t4 / 4) - slopeIn[i + 1]! * (t3 / 3 - t4 / 4)));
  }
  return x > xs[last]! ? sum + ys[last]! * (x - Math.max(0, xs[last]!)) : sum;
}
