import {
  collectionOf,
  listed,
  type Collection,
  type ColourSetting,
  type Key,
  type NumberSetting,
  type Shaper,
  type Stop,
} from '../settings/index.ts';

const opacityOf = ({ opacity = 1 }: Stop): number => opacity;

/** How opaque the stops of a gradient are, straight from one to the next, as far as a shaper of the colour goes. */
function keysOf(stops: Collection<Stop>, share: number): Collection<Key> {
  const sorted = listed(stops).sort((a, b) => a.item.at.value - b.item.at.value);
  const valueOf = (stop: Stop) => 1 + (opacityOf(stop) - 1) * share;
  const slope = (from: number): number => {
    const [a, b] = [sorted[from]?.item, sorted[from + 1]?.item];
    // Between places of different rulers it is not known how steep it is.
    if (!a || !b || a.at.anchor !== b.at.anchor) return 0;
    const way = a.at.anchor === 'beforeDeath' ? a.at.value - b.at.value : b.at.value - a.at.value;
    return way > 0 ? (valueOf(b) - valueOf(a)) / way : 0;
  };
  return collectionOf(
    sorted.map(({ id, item }, n) => [
      id,
      { at: item.at, value: valueOf(item), slopeIn: slope(n - 1), slopeOut: slope(n) },
    ]),
  );
}

/** The shapers that the stops of a colour's gradients are of the opacity beside it; none where all are opaque. */
export function opacityShapers({ shapers, muted }: ColourSetting): { readonly id: string; readonly item: Shaper }[] {
  if (muted) return [];
  return listed(shapers).flatMap(({ id, item }) => {
    const { mapping } = item;
    if (
      mapping.kind !== 'gradient' ||
      item.muted ||
      listed(mapping.stops).every((stop) => opacityOf(stop.item) === 1)
    )
      return [];
    const share = item.combine === 'blend' ? item.amount : 1;
    const curve = { keys: keysOf(mapping.stops, share) };
    const made: Shaper = {
      reads: item.reads,
      mapping: { kind: 'curve', curve },
      combine: 'multiply',
      amount: 1,
      muted: false,
    };
    return [{ id: `stops/${id}`, item: made }];
  });
}

/** The opacity of a layer with what the stops of its colour make of it. */
export function shownOpacity(opacity: NumberSetting, colour: ColourSetting): NumberSetting {
  const more = opacityShapers(colour);
  if (more.length === 0) return opacity;
  const { order, byId } = opacity.shapers;
  // A muted opacity is full, and the stops still act.
  const own = opacity.muted
    ? { base: { kind: 'fixed', value: 100 } as const, order: [], byId: {} }
    : { base: opacity.base, order, byId };
  return {
    base: own.base,
    muted: false,
    shapers: {
      order: [...own.order, ...more.map(({ id }) => id)],
      byId: { ...own.byId, ...Object.fromEntries(more.map(({ id, item }) => [id, item])) },
    },
  };
}
