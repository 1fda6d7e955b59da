import { listed, type Id } from './collection.ts';
import type { Effect, Layer, Place } from './effect.ts';
import { stepsOf, type PictureRef, type Step } from './look.ts';
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

/** Where a dial gives a place, a direction, a picture or a mesh, in words. */
function dialUses(effect: Effect, id: Id): string[] {
  const isAt = (place: Place) => place.kind === 'dial' && place.dial === id;
  const found: string[] = [];
  for (const { id: layerId, item } of listed(effect.layers)) {
    if (item.seenBy === id) found.push(`${item.name}: whether it is seen`);
    if (placesOfLayer(effect, layerId).some(isAt)) found.push(`${item.name}: where it stands`);
  }
  for (const { item } of listed(effect.forces))
    if (isAt(item.force.place)) found.push(`The effect: force, where it stands`);
  for (const { item } of listed(effect.surfaces))
    if ('place' in item && isAt(item.place)) found.push('The effect: surface, where it stands');
  for (const { item } of listed(effect.fronts)) if (isAt(item.place)) found.push(`${item.name}: where it stands`);
  const dial = effect.dials.byId[id];
  if (dial?.kind === 'picture') found.push(...pictureUses(effect, dial.standsFor.asset));
  if (dial?.kind === 'mesh') found.push(...meshUses(effect, dial.standsFor.asset));
  return found;
}

function pictureUses(effect: Effect, asset: string): string[] {
  const isShown = (picture: PictureRef | null) => picture?.asset === asset;
  const isInLook = (layer: Pick<Layer, 'look'>) =>
    stepsOf(effect, layer).some(({ item }) => 'picture' in item && isShown(item.picture));
  return [
    ...listed(effect.layers).flatMap(({ item }) => [
      ...(isInLook(item) ? [`${item.name}: look, picture`] : []),
      ...(item.drawn.kind === 'haze' && isShown(item.drawn.picture) ? [`${item.name}: what bends it`] : []),
    ]),
    ...(isShown(effect.stage.air.surroundings.picture) ? ['The effect: what is mirrored'] : []),
  ];
}

const meshUses = (effect: Effect, asset: string): string[] =>
  listed(effect.layers)
    .filter(
      ({ item: { drawn } }) => drawn.kind === 'mesh' && listed(drawn.meshes).some(({ item }) => item.asset === asset),
    )
    .map(({ item }) => `${item.name}: what it is drawn as`);

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
  }
  if (table === 'dials') found.push(...dialUses(effect, id));
  if (table === 'palette')
    for (const { id: other, item } of listed(effect.palette))
      if (other !== id && item.colour.kind === 'derived' && item.colour.from === id)
        found.push(`The palette: ${item.name}`);
  return [...new Set(found)];
}
