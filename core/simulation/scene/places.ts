import { listed, type Place, type PlaceKey } from '../../document/index.ts';

/** How far a place is from what it hangs on, and how it is turned (degrees), at one moment. */
export interface Hung {
  readonly offset: Float64Array;
  readonly turn: Float64Array;
}

export const newHung = (): Hung => ({ offset: new Float64Array(3), turn: new Float64Array(3) });

const sorted = new WeakMap<object, readonly PlaceKey[]>();

/** The keys of a place in order of time; made once for a document. */
function keysOf(place: Place): readonly PlaceKey[] {
  const known = sorted.get(place.keys);
  if (known) return known;
  const keys = listed(place.keys)
    .map(({ item }) => item)
    .sort((a, b) => a.at - b.at);
  sorted.set(place.keys, keys);
  return keys;
}

type Named = 'offset' | 'turn';

/** Slope of a smooth way at key `i`, per second: through its neighbours, and level at either end. */
function slopeAt(keys: readonly PlaceKey[], i: number, name: Named, axis: number): number {
  const before = keys[i - 1];
  const after = keys[i + 1];
  if (!before || !after || after.at === before.at) return 0;
  return (after[name][axis]! - before[name][axis]!) / (after.at - before.at);
}

function mixed(keys: readonly PlaceKey[], i: number, t: number, name: Named, axis: number): number {
  const a = keys[i]!;
  const b = keys[i + 1]!;
  const from = a[name][axis]!;
  const to = b[name][axis]!;
  if (a.ease === 'step') return from;
  if (a.ease === 'straight') return from + (to - from) * t;
  const width = b.at - a.at;
  const u = 1 - t;
  const bend = slopeAt(keys, i, name, axis) * u - slopeAt(keys, i + 1, name, axis) * t;
  return from * (1 + 2 * t) * u * u + to * t * t * (3 - 2 * t) + width * t * u * bend;
}

/** Writes where a place hangs `seconds` along the time sheet: as its keys say, or where it stands without any. */
export function hungInto(out: Hung, place: Place, seconds: number): void {
  const keys = keysOf(place);
  const last = keys.length - 1;
  if (last < 0) {
    out.offset.set(place.offset);
    out.turn.set(place.turn);
    return;
  }
  let i = 0;
  while (i < last && seconds >= keys[i + 1]!.at) i++;
  const key = keys[i]!;
  if (i === last || seconds <= key.at) {
    out.offset.set(key.offset);
    out.turn.set(key.turn);
    return;
  }
  const t = (seconds - key.at) / (keys[i + 1]!.at - key.at);
  for (let axis = 0; axis < 3; axis++) {
    out.offset[axis] = mixed(keys, i, t, 'offset', axis);
    out.turn[axis] = mixed(keys, i, t, 'turn', axis);
  }
}
