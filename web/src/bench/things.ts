import { listed, newThing, withItem, type Effect } from '@jinx/core/document';

/** Ids of things that sources, forces, aims or the carrier hang on, though nothing of that name stands on the stage. */
function missingThings(effect: Effect): string[] {
  const found = new Set<string>();
  const look = (value: object) => 'thing' in value && found.add(value.thing as string);
  look(effect.stage.carrier);
  for (const { item } of listed(effect.forces)) look(item.force.place);
  for (const { item } of listed(effect.surfaces)) {
    look(item);
    if ('place' in item) look(item.place);
  }
  for (const { item } of listed(effect.fronts)) look(item.place);
  for (const { item } of listed(effect.layers)) {
    look(item.source);
    if ('place' in item.source) look(item.source.place);
    if (item.source.kind === 'hits') for (const hit of listed(item.source.hits)) look(hit.item.place);
    look(item.aim);
    look(item.drawn);
    if ('from' in item.drawn) [item.drawn.from, item.drawn.to].forEach(look);
    for (const force of listed(item.forces)) look(force.item.place);
  }
  return [...found].filter((id) => !effect.stage.things.byId[id]).sort();
}

/** Half the room that things put on the stage one after another keep between them, in metres. */
const BESIDE = 0.9;

/**
 * Puts an asset on the stage. It takes the place of one that layers still hang on, if there is any; others stand to the
 * right and left of it in turn.
 */
export function placeThing(draft: Effect, name: string, asset: string, id: string): void {
  const { things } = draft.stage;
  const count = things.order.length;
  const thing = newThing(name, asset);
  const side = count % 2 === 0 ? -1 : 1;
  if (count > 0) thing.at = [side * BESIDE * Math.ceil(count / 2) * 2, 0, 0];
  draft.stage.things = withItem(things, missingThings(draft)[0] ?? id, thing);
}
