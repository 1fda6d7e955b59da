import { isShapeKind, SHAPES } from '../simulation/shapes/index.ts';
import { listed, type Id, type Reads, type Setting } from '../settings/index.ts';
import type { LayerSettingName } from './declarations/index.ts';
import type { Effect, Force, SourceKind, Surface } from './schema/index.ts';

/** Which settings of a layer say how large its source's shape is. */
export const measuresOf = (kind: SourceKind): readonly LayerSettingName[] =>
  isShapeKind(kind) ? SHAPES[kind].measures.map((name) => `source.${name}` as const) : [];

/** Whether something with a list of layers is for one of them: an empty list is for all. */
export const concerns = ({ layers }: { readonly layers: readonly Id[] }, layerId: Id): boolean =>
  layers.length === 0 || layers.includes(layerId);

/** The forces that act on a layer's particles: its own, then those of the effect that are for it. */
export const forcesOn = (
  effect: Pick<Effect, 'layers' | 'forces'>,
  layerId: Id,
): { id: Id; item: Force; isShared: boolean }[] => [
  ...listed(effect.layers.byId[layerId]!.forces).map(({ id, item }) => ({ id, item, isShared: false })),
  ...listed(effect.forces)
    .filter(({ item }) => concerns(item, layerId))
    .map(({ id, item }) => ({ id, item: item.force, isShared: true })),
];

/** The layers whose particles meet a surface; what is drawn as the mesh that is met never meets itself. */
export const layersMeeting = ({ layers }: Pick<Effect, 'layers'>, surface: Surface): Id[] =>
  layers.order.filter((id) => concerns(surface, id) && !(surface.kind === 'layer' && surface.layer === id));

/** The surfaces that are for a layer. */
export const surfacesFor = (effect: Pick<Effect, 'surfaces'>, layerId: Id): { id: Id; item: Surface }[] =>
  listed(effect.surfaces).filter(({ item }) => concerns(item, layerId));

/** Whether any of some settings is shaped, now, by something of these kinds: what is muted is not. */
export const areShapedBy = (settings: object, kinds: readonly Reads['kind'][]): boolean =>
  Object.values(settings as Record<string, Setting>).some(
    ({ muted, shapers }) =>
      !muted &&
      Object.values(shapers.byId).some(
        ({ reads, amountBy, muted: isOff }) =>
          !isOff && (kinds.includes(reads.kind) || (amountBy !== undefined && kinds.includes(amountBy.reads.kind))),
      ),
  );
