import { listed, type Id } from '../settings/index.ts';
import type { Burst, Effect, Layer } from './schema/index.ts';
import { layersReferringTo } from './parts/foundRefs.ts';

/** A burst as far as the time sheet can tell: one that waits for a signal comes where that comes on the stage, or not at all. */
export function timedBursts(
  { bursts }: Pick<Layer, 'bursts'>,
  { signals }: Pick<Effect, 'signals'>,
): { id: Id; item: Burst }[] {
  return listed(bursts).flatMap(({ id, item }) => {
    if (item.signal === null) return [{ id, item }];
    const tried = signals.byId[item.signal]?.tried;
    return tried ? [{ id, item: { ...item, stretch: tried.stretch, at: tried.at + item.at } }] : [];
  });
}

/** The layers whose births wait for a signal. */
export const waitingFor = (effect: Effect, signal: Id): Id[] => layersReferringTo(effect, 'signals', signal);
