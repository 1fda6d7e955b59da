import { forcesOn, surfacesFor, type Effect } from '@jinx/core/document';
import type { StageRigs } from '@jinx/core/checks';
import type { Guide } from '@jinx/stage';
import { ribbonGuides } from './ribbon';
import { frontGuides } from './front';
import { forceGuides } from './forces';
import { AT_FIRST, Matrices, type GuideInstant } from './matrices';
import { wayGuides } from './ways';
import { sourceGuides } from './source';
import { surfaceGuides, type Meshes } from './surfaces';

/** Drawings of the chosen layer's source, its forces, and what its particles meet, as they stand at an instant. */
export function guidesFor(
  effect: Effect | null,
  layerId: string,
  rigs: StageRigs,
  meshes: Meshes,
  instant: GuideInstant = AT_FIRST,
): Guide[] {
  const layer = effect?.layers.byId[layerId];
  if (!layer) return [];
  const { source } = layer;
  const isOnThing = 'thing' in source || ('place' in source && 'thing' in source.place);
  const matrices = new Matrices(effect, rigs, instant);
  return [
    ...sourceGuides(layer, matrices),
    ...forcesOn(effect, layerId).flatMap(({ id, item, isShared }) =>
      forceGuides(id, item, matrices, isShared ? null : layer.parent, isOnThing),
    ),
    ...ribbonGuides(layer, matrices),
    ...frontGuides(effect, layerId, matrices, rigs),
    ...surfacesFor(effect, layerId).flatMap(({ item }) => surfaceGuides(item, matrices, meshes)),
    ...wayGuides(effect, layerId, matrices),
  ];
}

/** Whether two drawings are the same lines. */
export const areSame = (some: readonly Guide[], others: readonly Guide[]): boolean =>
  some.length === others.length &&
  some.every(({ matrix, tone, points }, n) => {
    const other = others[n]!;
    if (matrix !== other.matrix || tone !== other.tone || points.length !== other.points.length) return false;
    return points === other.points || points.every((value, i) => value === other.points[i]);
  });
