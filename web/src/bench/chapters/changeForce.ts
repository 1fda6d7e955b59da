import { partBeside, withoutItem, type Effect, type Force, type Id, type PartOf } from '@jinx/core/document';
import type { useEffectStore } from '../../stores/effect';

type Store = ReturnType<typeof useEffectStore>;
export type ForceAddress = PartOf<'force'> | PartOf<'sharedForce'>;

/** The address of a force that acts on a layer: the layer's own, or the effect's. */
export const forceAddress = (layer: Id, id: Id, isShared: boolean): ForceAddress =>
  isShared ? { kind: 'sharedForce', id } : { kind: 'force', layer, id };

/** Of each chosen layer the force that answers to one: read before anything is written. */
function answering({ chosenIds }: Store, effect: Effect, address: PartOf<'force'>): ReadonlyMap<Id, Id> {
  return new Map(
    chosenIds.flatMap((layer) => {
      const beside = partBeside(effect, address, layer);
      return beside?.kind === 'force' ? [[layer, beside.id] as const] : [];
    }),
  );
}

/** Changes a force: of the chosen layers the one of each that answers to it, of the effect itself once. */
export function changeForce(
  store: Store,
  label: string,
  address: ForceAddress,
  recipe: (force: Force) => void,
  gesture: string | null = null,
): void {
  if (address.kind === 'sharedForce')
    return store.change(label, (draft) => recipe(draft.forces.byId[address.id]!.force), gesture);
  const found = answering(store, store.effect!, address);
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
export function removeForce(store: Store, address: ForceAddress): void {
  if (address.kind === 'sharedForce')
    return store.change('remove a force', (draft) => (draft.forces = withoutItem(draft.forces, address.id)));
  const found = answering(store, store.effect!, address);
  store.changeLayers('remove a force', (layer, layerId) => {
    const own = found.get(layerId);
    if (own) layer.forces = withoutItem(layer.forces, own);
  });
}
