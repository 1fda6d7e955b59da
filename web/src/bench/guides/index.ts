import { listed, type Effect } from '@jinx/core/document';
import type { StageRigs } from '@jinx/core/checks';
import type { Guide } from '@jinx/stage';
import { ribbonGuides } from './ribbon';
import { frontGuides } from './front';
import { forceGuides } from './forces';
import { Matrices } from './matrices';
import { sourceGuides } from './source';
import { surfaceGuides, type Meshes } from './surfaces';

/** Drawings of the chosen layer's source, its forces, and what its particles meet. */
export function guidesFor(effect: Effect | null, layerId: string, rigs: StageRigs, meshes: Meshes): Guide[] {
  const layer = effect?.layers.byId[layerId];
  if (!layer) return [];
  const matrices = new Matrices(rigs);
  const shared = listed(effect.forces)
    .filter(({ item }) => item.layers.length === 0 || item.layers.includes(layerId))
    .map(({ item }) => item.force);
  const forces = [...listed(layer.forces).map(({ item }) => item), ...shared];
  const surfaces = listed(effect.surfaces).filter(
    ({ item }) => item.layers.length === 0 || item.layers.includes(layerId),
  );
  return [
    ...sourceGuides(layer, matrices),
    ...forces.flatMap((force) => forceGuides(force, matrices)),
    ...ribbonGuides(layer, matrices),
    ...frontGuides(effect, layerId, matrices, rigs),
    ...surfaces.flatMap(({ item }) => surfaceGuides(item, matrices, meshes)),
  ];
}
