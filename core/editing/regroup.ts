import {
  collectionOf,
  listed,
  newGroup,
  placesOfLayer,
  withItem,
  withoutDust,
  withoutItem,
  type Effect,
  type Id,
  type Place,
  type PlaceKey,
  type Vector,
} from '../document/index.ts';
import { IDENTITY, invertAffine, multiplyInto, transformPoint, type Vec3 } from '../maths/index.ts';
import { degreesOf, groupFrame, rotationInto } from '../simulation/index.ts';
import { resizeLayerSettings } from './resize.ts';

const tidied = (vector: Vec3): Vector => vector.map((x) => withoutDust(x)) as Vector;

/** What carries a frame of old groups into one of new groups: its matrix, scale, and whether it turns anything. */
export interface Carrying {
  readonly matrix: Float64Array;
  readonly scale: number;
  readonly turns: boolean;
}

export function carrying(effect: Effect, from: Id | null, to: Id | null): Carrying {
  const [before, after] = [groupFrame(effect, from), groupFrame(effect, to)];
  const matrix = new Float64Array(16);
  multiplyInto(
    matrix,
    0,
    invertAffine(after.matrix ?? Float64Array.from(IDENTITY)),
    0,
    before.matrix ?? Float64Array.from(IDENTITY),
    0,
  );
  const scale = before.scale / after.scale;
  const turns = matrix.some((x, i) => i < 12 && Math.abs(x - (i % 5 === 0 ? scale : 0)) > 1e-12 * scale);
  return { matrix, scale, turns };
}

/** Degrees by which something is turned that a matrix has carried. */
export function carriedTurn({ matrix }: Pick<Carrying, 'matrix'>, turn: Vector): Vector {
  const [own, both] = [new Float64Array(16), new Float64Array(16)];
  rotationInto(own, ...turn);
  multiplyInto(both, 0, matrix, 0, own, 0);
  return tidied(degreesOf(both));
}

/** A place that stands in the new frame where it stood in the old one. Bones feel no groups. */
export function carryPlace(place: Place, by: Carrying): void {
  if (place.kind === 'bone') return;
  const hung = <T extends Pick<PlaceKey, 'offset' | 'turn'>>(value: T): T => ({
    ...value,
    offset: tidied(transformPoint(by.matrix, 0, value.offset)),
    turn: by.turns ? carriedTurn(by, value.turn) : value.turn,
  });
  const { offset, turn } = hung(place);
  place.offset = offset;
  place.turn = turn;
  place.keys = collectionOf(listed(place.keys).map(({ id, item }) => [id, hung(item)] as const));
}

/** Puts a layer under another parent, or under none, in a draft: its values are rewritten so that nothing looks otherwise. */
export function moveLayer(draft: Effect, id: Id, parent: Id | null): void {
  const layer = draft.layers.byId[id]!;
  if (layer.parent === parent) return;
  const by = carrying(draft, layer.parent, parent);
  for (const place of placesOfLayer(draft, id)) carryPlace(place, by);
  if (by.scale !== 1) resizeLayerSettings(draft, id, by.scale);
  layer.parent = parent;
}

/** Whether a group may go into another: not into itself, nor into what stands in it. */
export function mayHold(effect: Pick<Effect, 'groups'>, parent: Id | null, group: Id): boolean {
  for (let at = parent; at !== null; at = effect.groups.byId[at]!.parent) if (at === group) return false;
  return true;
}

/** Puts a group under another parent, or under none, in a draft: it stays where it is seen. @throws Error where it would hold itself. */
export function moveGroup(draft: Effect, id: Id, parent: Id | null): void {
  const group = draft.groups.byId[id]!;
  if (group.parent === parent) return;
  if (!mayHold(draft, parent, id)) throw new Error('a group cannot stand in itself');
  const by = carrying(draft, group.parent, parent);
  group.translation = tidied(transformPoint(by.matrix, 0, group.translation));
  if (by.turns) group.rotation = carriedTurn(by, group.rotation);
  group.scale = withoutDust(group.scale * by.scale);
  group.parent = parent;
}

/** The middle of what some layers are born on, where it stands in the effect's own frame; a centimetre is near enough. */
function middleOf(effect: Effect, layers: readonly Id[]): Vector {
  const offsets = layers.flatMap((id) => {
    const { source } = effect.layers.byId[id]!;
    return 'place' in source && source.place.kind === 'effect' ? [source.place.offset] : [];
  });
  if (offsets.length === 0) return [0, 0, 0];
  return [0, 1, 2].map(
    (axis) =>
      Math.floor((100 * offsets.reduce((sum, offset) => sum + offset[axis]!, 0)) / offsets.length + 0.5) / 100,
  ) as Vector;
}

/** The parent that layers have in common; null where they have none, or not the same. */
function commonParent(effect: Effect, layers: readonly Id[]): Id | null {
  const parents = new Set(layers.map((id) => effect.layers.byId[id]!.parent));
  return parents.size === 1 ? [...parents][0]! : null;
}

/** Puts layers under a new group that stands in their middle, in a draft. Nothing looks otherwise. */
export function groupLayers(draft: Effect, layers: readonly Id[], id: Id, name: string): void {
  const parent = commonParent(draft, layers);
  const group = newGroup(name, parent);
  // Of layers with one parent, the middle is known in that parent's own frame.
  if (layers.every((layer) => draft.layers.byId[layer]!.parent === parent))
    group.translation = middleOf(draft, layers);
  draft.groups = withItem(draft.groups, id, group);
  for (const layer of layers) moveLayer(draft, layer, id);
}

/** What stands directly in a group, or with null in none. */
export const childrenOf = (
  effect: Pick<Effect, 'groups' | 'layers'>,
  parent: Id | null,
): { layers: Id[]; groups: Id[] } => ({
  layers: effect.layers.order.filter((id) => effect.layers.byId[id]!.parent === parent),
  groups: effect.groups.order.filter((id) => effect.groups.byId[id]!.parent === parent),
});

/** Every layer that stands in a group, however deep. */
export const layersWithin = (effect: Pick<Effect, 'groups' | 'layers'>, group: Id): Id[] => {
  const { layers, groups } = childrenOf(effect, group);
  const all = new Set([...layers, ...groups.flatMap((inner) => layersWithin(effect, inner))]);
  return effect.layers.order.filter((id) => all.has(id));
};

/** Takes a group away, in a draft: what stood in it stands in its parent, where it was. */
export function ungroup(draft: Effect, id: Id): void {
  const { parent } = draft.groups.byId[id]!;
  const { layers, groups } = childrenOf(draft, id);
  for (const layer of layers) moveLayer(draft, layer, parent);
  for (const group of groups) moveGroup(draft, group, parent);
  draft.groups = withoutItem(draft.groups, id);
}
