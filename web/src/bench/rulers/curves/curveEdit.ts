import { collectionOf, listed, type Curve, type Key } from '@jinx/core/document';
import { curveAt, fitToLife, placeOnLife, readyCurve } from '@jinx/core/maths';
import { placed, tidy } from '../keyPlaces';

export type Ease = 'smooth' | 'sharp' | 'held';
export type KeyIds = ReadonlySet<string>;

/** What a curve is edited within: the life its ruler shows, in seconds, and the least and most that it may say. */
export interface Bounds {
  readonly life: number;
  readonly least: number;
  readonly most: number;
}

const share = (x: number) => Math.min(1, Math.max(0, x));
const within = (value: number, { least, most }: Bounds) => tidy(Math.min(most, Math.max(least, value)));

/**
 * The keys a command is for: those that are chosen, as far as the curve still has them. Where fewer are chosen than it
 * takes, it is for all.
 */
export function keysMeant({ keys }: Curve, chosen: KeyIds, least = 1): KeyIds {
  const known = keys.order.filter((id) => chosen.has(id));
  return new Set(known.length >= least ? known : keys.order);
}

/** Does something to the keys it is meant for, or to all where it would leave those as they are. */
export function actOn(curve: Curve, chosen: KeyIds, act: (ids: KeyIds) => Curve): Curve {
  const some = act(keysMeant(curve, chosen));
  return JSON.stringify(some) === JSON.stringify(curve) ? act(new Set(curve.keys.order)) : some;
}

/** Keys in order of place, so that the curve never folds back. */
export function inOrder({ keys }: Curve, life: number): Curve {
  const at = (id: string) => placeOnLife(keys.byId[id]!.at, life);
  return { keys: { byId: keys.byId, order: [...keys.order].sort((a, b) => at(a) - at(b)) } };
}

function changed(curve: Curve, ids: KeyIds, life: number, change: (key: Key, x: number) => Key): Curve {
  const entries = listed(curve.keys).map(
    ({ id, item }) => [id, ids.has(id) ? change(item, placeOnLife(item.at, life)) : item] as const,
  );
  return inOrder({ keys: collectionOf(entries) }, life);
}

/** Moves keys together, by a share of life and a value; none leaves the ruler. Each stays held by its own anchor. */
export function moveKeys(curve: Curve, ids: KeyIds, dx: number, dy: number, bounds: Bounds): Curve {
  const xs = [...ids].map((id) => placeOnLife(curve.keys.byId[id]!.at, bounds.life));
  const by = Math.min(1 - Math.max(...xs), Math.max(-Math.min(...xs), dx));
  return changed(curve, ids, bounds.life, (key, x) => ({
    ...key,
    at: by === 0 ? key.at : placed(key.at.anchor, share(x + by), bounds.life),
    value: dy === 0 ? key.value : within(key.value + dy, bounds),
  }));
}

/** Stretches keys along the ruler about a place of it. */
export const stretchKeys = (curve: Curve, ids: KeyIds, factor: number, about: number, { life }: Bounds): Curve =>
  changed(curve, ids, life, (key, x) => ({
    ...key,
    at: placed(key.at.anchor, share(about + (x - about) * factor), life),
    slopeIn: tidy(key.slopeIn / factor),
    slopeOut: tidy(key.slopeOut / factor),
  }));

/** Makes keys so many times as high. */
export const scaleKeys = (curve: Curve, ids: KeyIds, factor: number, bounds: Bounds): Curve =>
  changed(curve, ids, bounds.life, (key) => ({
    ...key,
    value: within(key.value * factor, bounds),
    slopeIn: tidy(key.slopeIn * factor),
    slopeOut: tidy(key.slopeOut * factor),
  }));

/** Turns keys end for end between the first and the last of them. */
export function flipKeys(curve: Curve, ids: KeyIds, life: number): Curve {
  const xs = [...ids].map((id) => placeOnLife(curve.keys.byId[id]!.at, life));
  const sum = Math.min(...xs) + Math.max(...xs);
  return changed(curve, ids, life, ({ held: _, ...key }, x) => ({
    ...key,
    at: placed(key.at.anchor, share(sum - x), life),
    slopeIn: tidy(-key.slopeOut),
    slopeOut: tidy(-key.slopeIn),
  }));
}

/** How a curve comes to keys and leaves them: rounded through them, straight from key to key, or level until the next. */
export function easeKeys(curve: Curve, ids: KeyIds, ease: Ease, life: number): Curve {
  const points = listed(inOrder(curve, life).keys).map(({ id, item }) => ({
    id,
    x: placeOnLife(item.at, life),
    y: item.value,
  }));
  const slope = (a: (typeof points)[number] | undefined, b: (typeof points)[number] | undefined) =>
    a && b && b.x > a.x ? (b.y - a.y) / (b.x - a.x) : 0;
  return changed(curve, new Set([...ids]), life, ({ held: _, ...key }, x) => {
    const n = points.findIndex((point) => point.x === x && point.y === key.value);
    const [before, after] = [slope(points[n - 1], points[n]), slope(points[n], points[n + 1])];
    if (ease === 'held') return { ...key, slopeOut: 0, held: true };
    if (ease === 'sharp') return { ...key, slopeIn: tidy(before), slopeOut: tidy(after) };
    const isEnd = n === 0 || n === points.length - 1;
    // Between two slopes of one sign their harmonic mean keeps the curve from overshooting; at a turn it is level.
    const through = isEnd ? before || after : before * after > 0 ? (2 * before * after) / (before + after) : 0;
    return { ...key, slopeIn: tidy(through), slopeOut: tidy(through) };
  });
}

/** Adds a key on the curve, or at a value, so that the curve goes on through it. */
export function withKeyAt(curve: Curve, id: string, x: number, value: number | null, bounds: Bounds): Curve {
  const ready = readyCurve(curve);
  fitToLife(ready, bounds.life);
  const y = (at: number) => curveAt(ready, share(at));
  const slope = tidy((y(x + 0.01) - y(x - 0.01)) / (share(x + 0.01) - share(x - 0.01)));
  const key: Key = {
    at: { anchor: 'share', value: tidy(share(x)) },
    value: within(value ?? y(x), bounds),
    slopeIn: slope,
    slopeOut: slope,
  };
  return inOrder(
    { keys: { order: [...curve.keys.order, id], byId: { ...curve.keys.byId, [id]: key } } },
    bounds.life,
  );
}

/** Takes keys away; one is always left. */
export function withoutKeys(curve: Curve, ids: KeyIds): Curve {
  const left = listed(curve.keys).filter(({ id }) => !ids.has(id));
  const kept = left.length > 0 ? left : listed(curve.keys).slice(0, 1);
  return { keys: collectionOf(kept.map(({ id, item }) => [id, item] as const)) };
}

/** Keys that lie in a box, from its lower left corner to its upper right: ages and values. */
export const keysWithin = (
  curve: Curve,
  life: number,
  from: readonly [number, number],
  to: readonly [number, number],
): KeyIds =>
  new Set(
    listed(curve.keys)
      .filter(({ item }) => {
        const x = placeOnLife(item.at, life);
        return x >= from[0] && x <= to[0] && item.value >= from[1] && item.value <= to[1];
      })
      .map(({ id }) => id),
  );

/** Puts keys that were copied into a curve, under new ids, in place of those that stood among them. Returns both. */
export function withPasted(
  curve: Curve,
  copied: readonly Key[],
  newId: () => string,
  bounds: Bounds,
): { curve: Curve; ids: KeyIds } {
  const made = copied.map((key) => [newId(), { ...key, value: within(key.value, bounds) }] as const);
  const xs = copied.map(({ at }) => placeOnLife(at, bounds.life));
  const [low, high] = [Math.min(...xs), Math.max(...xs)];
  const others = listed(curve.keys)
    .filter(({ item }) => {
      const x = placeOnLife(item.at, bounds.life);
      return x < low - 1e-6 || x > high + 1e-6;
    })
    .map(({ id, item }) => [id, item] as const);
  const ids = new Set(made.map(([id]) => id));
  return { curve: inOrder({ keys: collectionOf([...others, ...made]) }, bounds.life), ids };
}
