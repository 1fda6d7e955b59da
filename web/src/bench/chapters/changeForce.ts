import { withoutItem, type Force } from '@jinx/core/document';
import type { useEffectStore } from '../../stores/effect';
import { forceBeside } from '../holders';

type Store = ReturnType<typeof useEffectStore>;

/** Changes a force: of the chosen layers the one of each that answers to it, of the effect itself once. */
export function changeForce(
  store: Store,
  label: string,
  id: string,
  recipe: (force: Force) => void,
  gesture: string | null = null,
): void {
  const before = store.effect!;
  const shared = before.forces.byId[id];
  if (shared) return store.change(label, (draft) => recipe(draft.forces.byId[id]!.force), gesture);
  // Who answers to whom is read before anything is written.
  const found = new Map(
    store.chosenIds.map((layerId) => [layerId, forceBeside(before, store.chosenId, layerId, id)]),
  );
  store.changeLayers(
    label,
    ({ forces }, layerId) => {
      const own = forces.byId[found.get(layerId) ?? ''];
      if (own) recipe(own);
    },
    gesture,
  );
}

/** Takes a force away, from every chosen layer that has one that answers to it. */
export function removeForce(store: Store, id: string): void {
  const before = store.effect!;
  if (before.forces.byId[id])
    return store.change('remove a force', (draft) => (draft.forces = withoutItem(draft.forces, id)));
  const found = new Map(
    store.chosenIds.map((layerId) => [layerId, forceBeside(before, store.chosenId, layerId, id)]),
  );
  store.changeLayers('remove a force', (layer, layerId) => {
    const own = found.get(layerId);
    if (own) layer.forces = withoutItem(layer.forces, own);
  });
}
