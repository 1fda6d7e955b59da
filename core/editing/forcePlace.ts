import {
  atBone,
  atEffect,
  forcesOn,
  mapped,
  structuredCopy,
  type Effect,
  type Id,
  type Place,
} from '../document/index.ts';

/** The same place, not turned: whatever is put there begins upright, as its words say. */
const upright = (place: Place): Place => ({
  ...structuredCopy(place),
  turn: [0, 0, 0],
  keys: mapped(structuredCopy(place.keys), (key) => ({ ...key, turn: [0, 0, 0] })),
});

/**
 * Where a new force of a layer stands: where another already does, else on what the source hangs on, over the figure, or in
 * the middle. `bonesOf` gives the names of a thing's bones.
 */
export function placeForForce(effect: Effect, layerId: Id, bonesOf: (thing: Id) => readonly string[]): Place {
  const other = forcesOn(effect, layerId).find(({ item }) => item.kind === 'attraction' || item.kind === 'vortex');
  if (other) return upright(other.item.place);
  const { source } = effect.layers.byId[layerId]!;
  if ('place' in source && (source.place.kind === 'bone' || source.place.kind === 'thing'))
    return upright(source.place);
  const [thing] = effect.stage.things.order;
  return thing !== undefined && bonesOf(thing).includes('chest')
    ? atBone(thing, 'chest', [0.35, 0.45, -0.1])
    : atEffect([0, 1.5, 0]);
}
