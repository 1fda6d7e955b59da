import type { Collection } from './collection.ts';
import type { Curve, KeyPlace, Stop } from './setting.ts';

/** Takes away what sums leave in the last digits of a double. */
export const withoutDust = (value: number): number => Number(value.toPrecision(12));

type Placed = { readonly at: KeyPlace };

/** A collection of what each item is made into; the same collection where that changes none. */
export function mapped<T>(collection: Collection<T>, change: (item: T) => T): Collection<T> {
  const { order, byId } = collection;
  const entries = order.map((id) => [id, change(byId[id]!)] as const);
  if (entries.every(([id, item]) => item === byId[id])) return collection;
  return { order, byId: Object.fromEntries(entries) };
}
const further = <T extends Placed>(item: T, factor: number): T => ({
  ...item,
  at: { ...item.at, value: withoutDust(item.at.value * factor) },
});

/** Stops as far apart again by a factor. */
export const stretchedStops = (stops: Collection<Stop>, factor: number): Collection<Stop> =>
  factor === 1 ? stops : mapped(stops, (stop) => further(stop, factor));

/** A curve as wide again by a factor. */
export const stretchedCurve = (curve: Curve, factor: number): Curve =>
  factor === 1
    ? curve
    : {
        keys: mapped(curve.keys, (key) => ({
          ...further(key, factor),
          slopeIn: withoutDust(key.slopeIn / factor),
          slopeOut: withoutDust(key.slopeOut / factor),
        })),
      };
