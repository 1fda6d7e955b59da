import { ownerOf, type Effect, type Source } from '../../document/index.ts';

/** The source of a layer, or of that whose particles it shows or is born on. */
export function sourceOf(effect: Effect, id: string): Source {
  const { source } = effect.layers.byId[ownerOf(effect, id)]!;
  return source.kind === 'particles' && source.layer !== id && effect.layers.byId[source.layer]
    ? effect.layers.byId[source.layer]!.source
    : source;
}

/** What the spots that particles keep mean: of a shape nothing, wherever it stands and whatever its size. */
export function spotsOf(source: Source): string {
  if (source.kind === 'hits') return source.hits.order.join();
  return 'place' in source ? '' : JSON.stringify(source);
}
