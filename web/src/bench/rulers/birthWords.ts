import { standsIn } from '@jinx/core/checks';
import { listed, type Effect, type Layer } from '@jinx/core/document';
import { plainNumber } from '../entry/numbers';
import type { TimedMark } from './timedMarks';

/** Other layers whose particles set births of a layer off, by name. */
function settersOf(effect: Effect, layerId: string): string[] {
  const setters = listed(effect.layers).filter(({ item }) =>
    listed(item.links).some(({ item: link }) => link.layer === layerId && !link.muted),
  );
  return setters.map(({ item }) => item.name);
}

/** Births for every metre its source travels, as a row draws them: 0 where that is no fixed number. */
export function birthsPerMetre(layer: Layer): number {
  const { base } = layer.settings['births.perMetre'];
  return base.kind === 'fixed' ? base.value : 0;
}

/**
 * What bears the particles of a layer, in the few words of its row; empty where nothing does.
 * @param peak births a second at most, as the row draws them.
 */
export function birthWords(effect: Effect, layerId: string, peak: number, marks: readonly TimedMark[]): string {
  const layer = effect.layers.byId[layerId]!;
  const perMetre = birthsPerMetre(layer);
  const setters = settersOf(effect, layerId);
  return [
    standsIn(layer, effect) ? 'stands' : '',
    peak > 0 ? `${plainNumber(peak)} a second` : '',
    perMetre > 0 ? `${plainNumber(perMetre)} a metre` : '',
    marks.map(({ words }) => words.replace(/^A /, '')).join(', '),
    setters.length > 0 ? `set off by ${setters.join(', ')}` : '',
  ]
    .filter(Boolean)
    .join(', ');
}
