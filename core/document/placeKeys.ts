import type { PartAddress } from './parts/address.ts';
import { listed, withItem, withoutItem, type Id, type Vector } from '../settings/index.ts';
import { forcesOn, surfacesFor } from './concerns.ts';
import { FORCES, forceWord } from './declarations/index.ts';
import type { Effect, Force, Place, PlaceKey } from './schema/index.ts';
import { findPart } from './parts/parts.ts';

/** Instants this near each other, in seconds, are the same key: half a step. */
const SAME_INSTANT = 1 / 120;
/** What a place is rounded to when a handle writes it: a tenth of a millimetre, a hundredth of a degree. */
const METRES = 1e4;
const DEGREES = 100;

const rounded = (vector: Vector, parts: number): Vector =>
  vector.map((x) => Math.floor(x * parts + 0.5) / parts) as Vector;

/** How far a place is from what it hangs on, and how it is turned. */
export type HungValue = Pick<PlaceKey, 'offset' | 'turn'>;

/** The key that stands at an instant of the time sheet, by id. */
export const placeKeyAt = (place: Place, seconds: number): Id | null =>
  listed(place.keys).find(({ item }) => Math.abs(item.at - seconds) <= SAME_INSTANT)?.id ?? null;

/**
 * Puts a place somewhere at an instant, in seconds of the time sheet. A place without keys is simply moved; one with keys
 * gets a key there under `id`, or has the one that stands there changed. Returns the place as it then is.
 */
export function placeSetAt(place: Place, seconds: number, value: HungValue, id: Id): Place {
  const hung = { offset: rounded(value.offset, METRES), turn: rounded(value.turn, DEGREES) };
  if (place.keys.order.length === 0) return { ...place, ...hung };
  return withPlaceKey(place, seconds, hung, id);
}

/** Keys a place at an instant: the key that stands there is changed, else one is made under `id`. */
export function withPlaceKey(place: Place, seconds: number, value: HungValue, id: Id): Place {
  const known = placeKeyAt(place, seconds);
  const at = Math.floor(seconds * 1000 + 0.5) / 1000;
  const key: PlaceKey = known ? { ...place.keys.byId[known]!, ...value } : { at, ease: 'smooth', ...value };
  return { ...place, keys: inTime(withItem(place.keys, known ?? id, key)) };
}

/** Takes a key away; with the last one gone the place stands where that key had put it. */
export function withoutPlaceKey(place: Place, id: Id): Place {
  const { offset, turn } = place.keys.byId[id]!;
  const keys = withoutItem(place.keys, id);
  return keys.order.length > 0 ? { ...place, keys } : { ...place, keys, offset, turn };
}

/** Moves keys of a place to other times, together: each by `seconds`, none before the sheet's beginning. */
export function retimed(place: Place, ids: readonly Id[], seconds: number): Place {
  const least = Math.min(...ids.map((id) => place.keys.byId[id]!.at));
  const by = Math.max(-least, seconds);
  const byId = { ...place.keys.byId };
  for (const id of ids) byId[id] = { ...byId[id]!, at: Math.floor((byId[id]!.at + by) * 1000 + 0.5) / 1000 };
  return { ...place, keys: inTime({ order: place.keys.order, byId }) };
}

const inTime = (keys: Place['keys']): Place['keys'] => ({
  ...keys,
  order: [...keys.order].sort((a, b) => keys.byId[a]!.at - keys.byId[b]!.at || (a < b ? -1 : 1)),
});

/** A place of an effect that one layer has to do with: whose it is, and its name for people. */
export interface NamedPlace {
  readonly address: PartAddress;
  readonly name: string;
  readonly place: Place;
  /** The group it stands in; what hangs on a bone feels none. */
  readonly group: Id | null;
}

function isSomewhere({ kind, muted, settings }: Force): boolean {
  const base = 'reach' in settings ? settings.reach.base : null;
  return !muted && !(FORCES[kind].place === 'reach' && base?.kind === 'fixed' && base.value === 0);
}

/** Every place that a layer's particles have to do with, the source's first. */
export function placesOf(effect: Effect, layerId: Id): NamedPlace[] {
  const layer = effect.layers.byId[layerId];
  if (!layer) return [];
  const at = { layer: layerId };
  const own = (address: PartAddress, name: string, place: Place): NamedPlace => ({
    address,
    name,
    place,
    group: place.kind === 'bone' ? null : layer.parent,
  });
  const effects = (address: PartAddress, name: string, place: Place): NamedPlace => ({
    address,
    name,
    place,
    group: null,
  });
  const isRound = ['toward', 'round'].includes(String(layer.settings['motion.launch'].base.value));
  return [
    ...('place' in layer.source ? [own({ kind: 'source', ...at }, layer.source.kind, layer.source.place)] : []),
    ...(layer.source.kind === 'hits'
      ? listed(layer.source.hits).map(({ id, item }, n) =>
          own({ kind: 'hit', ...at, id }, `hit ${n + 1}`, item.place),
        )
      : []),
    ...(isRound ? [own({ kind: 'aim', ...at }, 'aim of the launch', layer.aim)] : []),
    ...('from' in layer.drawn
      ? [
          own({ kind: 'from', ...at }, `beginning of the ${layer.drawn.kind}`, layer.drawn.from),
          own({ kind: 'to', ...at }, `end of the ${layer.drawn.kind}`, layer.drawn.to),
        ]
      : []),
    ...forcesOn(effect, layerId)
      .filter(({ item }) => isSomewhere(item))
      .map(({ id, item, isShared }) =>
        isShared
          ? effects({ kind: 'sharedForce', id }, `${forceWord(item.kind)} of all`, item.place)
          : own({ kind: 'force', ...at, id }, forceWord(item.kind), item.place),
      ),
    ...surfacesFor(effect, layerId).flatMap(({ id, item }) =>
      'place' in item && !item.muted
        ? [effects({ kind: 'surface', id }, `${item.kind} that is met`, item.place)]
        : [],
    ),
    ...(layer.front !== null && effect.fronts.byId[layer.front]
      ? [
          effects(
            { kind: 'front', id: layer.front },
            effect.fronts.byId[layer.front]!.name,
            effect.fronts.byId[layer.front]!.place,
          ),
        ]
      : []),
  ];
}

/** Where a group stands, as a place that can be moved and turned. */
export function placeOfGroup({ groups }: Pick<Effect, 'groups'>, id: Id): NamedPlace {
  const { name, parent, translation, rotation } = groups.byId[id]!;
  const place: Place = { kind: 'effect', offset: translation, turn: rotation, keys: { order: [], byId: {} } };
  return { address: { kind: 'group', id }, name, place, group: parent };
}

/** Sets one of `placesOf`, or a group's, in a document that may be written into; what is gone by now is left alone. */
export function setPlace(draft: Effect, address: PartAddress, place: Place): void {
  const part = findPart(draft, address);
  if (part === null) return;
  switch (address.kind) {
    case 'group':
      Object.assign(part, { translation: place.offset, rotation: place.turn });
      return;
    case 'aim':
      draft.layers.byId[address.layer]!.aim = place;
      return;
    case 'from':
    case 'to':
      Object.assign(draft.layers.byId[address.layer]!.drawn, { [address.kind]: place });
      return;
    case 'sharedForce':
      draft.forces.byId[address.id]!.force.place = place;
      return;
    default:
      if ('place' in part) part.place = place;
  }
}
