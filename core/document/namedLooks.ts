import type { Id } from '../settings/index.ts';
import type { Effect, Step } from './schema/index.ts';
import { layersReferringTo } from './parts/foundRefs.ts';
import { stepsOf } from './look.ts';

/** The layers that use a named look, for all they show or for a part of a mesh. */
export const usersOf = (effect: Effect, lookId: Id): Id[] => layersReferringTo(effect, 'looks', lookId);

/** Gives a layer's own steps a name, under which other layers may use them. */
export function nameLook(draft: Effect, layerId: Id, lookId: Id, name: string): void {
  const layer = draft.layers.byId[layerId];
  if (layer?.look.kind !== 'own') return;
  draft.looks.order.push(lookId);
  draft.looks.byId[lookId] = { name, steps: layer.look.steps };
  layer.look = { kind: 'named', look: lookId, changes: {} };
}

/** Lets a layer go its own way: the steps of the look it used, as it saw them, become its own. A look that nobody uses goes. */
export function ownLook(draft: Effect, layerId: Id): void {
  const layer = draft.layers.byId[layerId];
  if (layer?.look.kind !== 'named') return;
  const lookId = layer.look.look;
  const entries = stepsOf(draft, layer).map(({ id, item }): [Id, Step] => [
    id,
    JSON.parse(JSON.stringify(item)) as Step,
  ]);
  layer.look = { kind: 'own', steps: { order: entries.map(([id]) => id), byId: Object.fromEntries(entries) } };
  dropUnusedLook(draft, lookId);
}

/** Lets a layer use a named look instead of what it has. */
export function useLook(draft: Effect, layerId: Id, lookId: Id): void {
  const layer = draft.layers.byId[layerId];
  if (!layer || !draft.looks.byId[lookId]) return;
  const before = layer.look;
  layer.look = { kind: 'named', look: lookId, changes: {} };
  if (before.kind === 'named' && before.look !== lookId) dropUnusedLook(draft, before.look);
}

/** Takes out a named look that no layer uses. */
export function dropUnusedLook(draft: Effect, lookId: Id): void {
  if (usersOf(draft, lookId).length > 0) return;
  draft.looks.order = draft.looks.order.filter((id) => id !== lookId);
  delete draft.looks.byId[lookId];
}
