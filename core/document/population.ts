import type { Id } from '../settings/index.ts';
import type { Effect } from './schema/index.ts';

/** The layer whose particles a layer shows: itself, or the one it follows, by however many steps. */
export function ownerOf(effect: Pick<Effect, 'layers'>, layerId: Id): Id {
  let at = layerId;
  for (let steps = 0; steps < effect.layers.order.length; steps++) {
    const population = effect.layers.byId[at]?.population;
    if (population?.kind !== 'follows') break;
    at = population.layer;
  }
  return at;
}
