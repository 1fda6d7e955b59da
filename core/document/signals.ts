import { listed, type Collection, type Id } from '../settings/index.ts';
import type { Burst, Effect, Hit, Layer } from './schema/index.ts';
import { layersReferringTo } from './parts/foundRefs.ts';

/** The bursts of a layer that act. */
export const activeBursts = ({ bursts }: Pick<Layer, 'bursts'>) => listed(bursts).filter(({ item }) => !item.muted);
/** The hits of a list that act. */
export const activeHits = ({ hits }: { readonly hits: Collection<Hit> }) =>
  listed(hits).filter(({ item }) => !item.muted);

/** Active bursts as far as the time sheet can tell: one that waits for a signal comes where that comes on the stage, or not at all. */
export function timedBursts(
  { bursts }: Pick<Layer, 'bursts'>,
  { signals }: Pick<Effect, 'signals'>,
): { id: Id; item: Burst }[] {
  return placedBursts(activeBursts({ bursts }), signals);
}

/** Bursts where they stand on the time sheet. */
export function placedBursts(
  bursts: readonly { readonly id: Id; readonly item: Burst }[],
  signals: Effect['signals'],
): { id: Id; item: Burst }[] {
  return bursts.flatMap(({ id, item }) => {
    if (item.signal === null) return [{ id, item }];
    const tried = signals.byId[item.signal]?.tried;
    return tried ? [{ id, item: { ...item, stretch: tried.stretch, at: tried.at + item.at } }] : [];
  });
}

/** The layers whose births wait for a signal. */
export const waitingFor = (effect: Effect, signal: Id): Id[] => layersReferringTo(effect, 'signals', signal);
