import { listed, type Effect } from '../document/index.ts';

/** Takes from an effect what schemas 8 and 9 gave it, in place: for tests of older documents. */
export function asSchema7(effect: Effect): Effect {
  delete (effect as { quality?: unknown }).quality;
  const steps = listed(effect.looks).flatMap(({ item }) => listed(item.steps));
  for (const { item } of listed(effect.layers)) {
    delete (item as { quality?: unknown }).quality;
    const { bursts, source } = item;
    const timed = [...listed(bursts), ...(source.kind === 'hits' ? listed(source.hits) : [])];
    for (const each of timed) delete (each.item as { muted?: unknown }).muted;
    if (item.look.kind === 'own') steps.push(...listed(item.look.steps));
  }
  for (const { item } of steps) delete (item as { least?: unknown }).least;
  return effect;
}
