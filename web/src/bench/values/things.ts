import { newThing, refsIn, withItem, type Effect } from '@jinx/core/document';

/** Ids of things that something hangs on, though nothing of that name stands on the stage. */
const missingThings = (effect: Effect): string[] =>
  [...new Set(refsIn(effect, { table: 'things' }).map(({ id }) => id))]
    .filter((id) => !effect.stage.things.byId[id])
    .sort();

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
