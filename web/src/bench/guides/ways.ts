import { listed, placesOf, type Effect, type Place } from '@jinx/core/document';
import { hungInto, newHung } from '@jinx/core/simulation';
import type { Guide } from '@jinx/stage';
import { cross, type Point } from './lines';
import type { Matrices } from './matrices';

/** Parts in which the way from a key to the next is drawn. */
const PARTS = 24;
const KEY_SIZE = 0.02;

/** The way a place with keys goes, and a small cross at each key. */
function wayLines(place: Place): number[] {
  const keys = listed(place.keys);
  const at = newHung();
  const crosses = keys.flatMap(({ item }) => cross(item.offset as Point, KEY_SIZE));
  const ways = keys.slice(1).flatMap(({ item }, n) => {
    const from = keys[n]!.item.at;
    const points = Array.from({ length: PARTS + 1 }, (_, part) => {
      hungInto(at, place, from + ((item.at - from) * part) / PARTS);
      return [...at.offset];
    });
    return points.slice(1).flatMap((point, part) => [...points[part]!, ...point]);
  });
  return [...ways, ...crosses];
}

/** The ways of all places with keys that a layer has to do with. */
export const wayGuides = (effect: Effect, layerId: string, matrices: Matrices): Guide[] =>
  placesOf(effect, layerId)
    .filter(({ place }) => place.keys.order.length > 0)
    .map(({ place, group }) => ({
      matrix: matrices.of(place),
      points: matrices.grouped(Float32Array.from(wayLines(place)), place, group),
      tone: 'source',
    }));
