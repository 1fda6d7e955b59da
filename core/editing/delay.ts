import type { Effect, Id, Moment } from '../document/index.ts';

const LONGEST = 3600;
const within = (seconds: number, least: number) => Math.min(LONGEST, Math.max(least, Number(seconds.toPrecision(8))));

/**
 * Moves when layers bear by so many seconds, earlier where they are negative, in a draft: their bursts, their hits, where
 * their births begin, and where they end if that is so many seconds after a beginning. What hangs on a layer that is moved
 * too, on a signal, a measure or the end of the effect stays as it is.
 */
export function delayLayers(draft: Effect, layers: readonly Id[], seconds: number): void {
  const moved = (moment: Moment): Moment =>
    isOwn(moment, layers) ? { ...moment, seconds: within(moment.seconds + seconds, -LONGEST) } : moment;
  for (const id of layers) {
    const layer = draft.layers.byId[id]!;
    const { from, until } = layer.births;
    layer.births = { from: moved(from), until: until && moved(until) };
    for (const burst of Object.values(layer.bursts.byId))
      if (burst.signal === null) burst.at = within(burst.at + seconds, 0);
    if (layer.source.kind === 'hits')
      for (const hit of Object.values(layer.source.hits.byId)) hit.at = within(hit.at + seconds, 0);
  }
}

/** Whether it is the layer's own to move: it hangs on no measure, no end and none of the layers that are moved with it. */
function isOwn({ after, measure }: Moment, layers: readonly Id[]): boolean {
  if (measure !== null) return false;
  if (after.kind === 'layer') return !layers.includes(after.layer);
  return after.border === 'start' || after.border === 'hold';
}
