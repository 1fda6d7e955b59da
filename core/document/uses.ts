import { listed, type Id } from './collection.ts';
import type { Effect } from './effect.ts';
import { stepsOf, type Step } from './look.ts';
import type { Colour, Setting } from './setting.ts';
import { placesOfLayer, settingsIn } from './walk.ts';

/** What has a name in an effect and may be used by many settings. */
export type NamedTable = 'palette' | 'measures' | 'dials';

const isOf = (colour: Colour, id: Id) => 'palette' in colour && colour.palette === id;

/** Whether a setting uses an entry: as its base, through a shaper, or as a stop of a gradient. */
function uses({ base, shapers }: Setting, table: NamedTable, id: Id): boolean {
  if (table === 'measures') return base.kind === 'measure' && base.measure === id;
  const shaped = listed(shapers);
  if (table === 'dials') return shaped.some(({ item }) => item.reads.kind === 'dial' && item.reads.dial === id);
  const bases: Colour[] =
    base.kind === 'set'
      ? base.values
      : base.kind === 'fixed' && typeof base.value === 'object' && !Array.isArray(base.value)
        ? [base.value]
        : [];
  return (
    bases.some((colour) => isOf(colour, id)) ||
    shaped.some(
      ({ item: { mapping } }) =>
        mapping.kind === 'gradient' && listed(mapping.stops).some(({ item }) => isOf(item.colour, id)),
    )
  );
}

const gradientUses = (step: Step, id: Id): boolean =>
  step.kind === 'gradient' && listed(step.stops).some(({ item }) => isOf(item.colour, id));

/** Where a colour, a measure or a dial is used, in words, each place once: as in "Motes: size". */
export function usesOf(effect: Effect, table: NamedTable, id: Id): string[] {
  const nameOf = (layer: Id | null) => (layer === null ? 'The effect' : effect.layers.byId[layer]!.name);
  const found = settingsIn(effect)
    .filter(({ setting }) => uses(setting, table, id))
    .map(({ layer, of, declaration }) => {
      const kind = of.startsWith('step/') ? 'look, ' : of.startsWith('force/') ? 'force, ' : '';
      return `${nameOf(layer)}: ${kind}${declaration.name}`;
    });
  for (const { id: layerId, item } of listed(effect.layers)) {
    if (table === 'palette' && stepsOf(effect, item).some((step) => gradientUses(step.item, id)))
      found.push(`${nameOf(layerId)}: look, gradient`);
    if (table === 'measures' && item.births.from.measure === id) found.push(`${item.name}: when births begin`);
    if (table === 'measures' && item.births.until?.measure === id) found.push(`${item.name}: when births end`);
    if (table === 'dials' && item.seenBy === id) found.push(`${item.name}: whether it is seen`);
    if (
      table === 'dials' &&
      placesOfLayer(effect, layerId).some((place) => place.kind === 'dial' && place.dial === id)
    )
      found.push(`${item.name}: where it stands`);
  }
  if (table === 'palette')
    for (const { id: other, item } of listed(effect.palette))
      if (other !== id && item.colour.kind === 'derived' && item.colour.from === id)
        found.push(`The palette: ${item.name}`);
  return [...new Set(found)];
}
