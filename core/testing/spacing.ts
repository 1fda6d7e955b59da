import { meshSites, type Rig } from '../geometry/index.ts';

/** Places of the first `count` births of a mesh's even order, on its rest shape. */
export function evenPlaces(rig: Rig, count: number): [number, number, number][] {
  const sites = meshSites(rig, [], 'surface');
  const spot = { triangle: 0, second: 0, third: 0 };
  const offset = new Float64Array(3);
  const { positions, indices } = rig.mesh;
  return Array.from({ length: count }, (_, n) => {
    sites.evenInto(spot, offset, n);
    const weights = [1 - spot.second - spot.third, spot.second, spot.third];
    const place: [number, number, number] = [0, 0, 0];
    weights.forEach((weight, k) => {
      for (let axis = 0; axis < 3; axis++)
        place[axis]! += weight * positions[indices[spot.triangle * 3 + k]! * 3 + axis]!;
    });
    return place;
  });
}

/**
 * Over every beginning of a list of places on `area` square metres: the smallest share of the hexagonal ideal distance,
 * √(2 / √3 · area / n), that two places are apart, and the smallest that the nearest is away on the mean.
 */
export function spacingOf(places: readonly (readonly number[])[], area: number): { least: number; mean: number } {
  const nearest = new Float64Array(places.length).fill(Infinity);
  let [least, mean] = [Infinity, Infinity];
  for (let n = 1; n < places.length; n++) {
    for (let i = 0; i < n; i++) {
      const d = Math.hypot(...places[i]!.map((x, axis) => x - places[n]![axis]!));
      nearest[i] = Math.min(nearest[i]!, d);
      nearest[n] = Math.min(nearest[n]!, d);
    }
    const ideal = Math.sqrt(((2 / Math.sqrt(3)) * area) / (n + 1));
    const seen = nearest.subarray(0, n + 1);
    least = Math.min(least, Math.min(...seen) / ideal);
    mean = Math.min(mean, seen.reduce((sum, d) => sum + d, 0) / (n + 1) / ideal);
  }
  return { least, mean };
}
