import { inLayer, layerOf, type HolderAddress } from './parts/address.ts';
import type { Id } from '../settings/index.ts';
import type { Effect } from './schema/index.ts';
import { stepsOf } from './look.ts';
import { findPart } from './parts/parts.ts';

/** The first part of the same id, else of the same kind. */
function answering(id: Id, kind: string, beside: readonly { readonly id: Id; readonly kind: string }[]): Id | null {
  const same = beside.filter((part) => part.kind === kind);
  return (same.find((part) => part.id === id) ?? same[0])?.id ?? null;
}

/**
 * The part of another layer that answers to a layer's: of the same id, or of a force or a step the first of the same kind.
 * Null where the other layer has none, and of what is the effect's own, which is changed once for all layers.
 */
export function partBeside(effect: Effect, address: HolderAddress, layerId: Id): HolderAddress | null {
  const own = layerOf(address);
  if (own === layerId) return address;
  const beside = effect.layers.byId[layerId];
  if (own === null || !beside) return null;
  const there = inLayer(address, layerId);
  const part = findPart(effect, address);
  if (part === null) return null;
  switch (there.kind) {
    case 'force': {
      const forces = beside.forces.order.map((id) => ({ id, kind: beside.forces.byId[id]!.kind }));
      const id = answering(there.id, (part as { kind: string }).kind, forces);
      return id === null ? null : { ...there, id };
    }
    case 'step': {
      const steps = stepsOf(effect, beside).map(({ id, item }) => ({ id, kind: item.kind }));
      const id = answering(there.id, (part as { kind: string }).kind, steps);
      return id === null ? null : { ...there, id };
    }
    case 'drawn':
      return (part as { kind: string }).kind === beside.drawn.kind ? there : null;
    default:
      return findPart(effect, there) === null ? null : there;
  }
}
