import {
  collectionOf,
  assetsDialledBy,
  listed,
  refsTo,
  structuredCopy,
  type Dial,
  type Effect,
  type Id,
  type Place,
  type PlaceKey,
  type Vector,
} from '../document/index.ts';
import { rotationInto } from '../simulation/index.ts';
import { carriedTurn } from './regroup.ts';

/** Dials that give something else than a number: they are put in before anything is computed. */
const isGiven = ({ kind }: Dial): boolean => kind !== 'number' && kind !== 'switch';

/** An effect with what its dials of places, directions, pictures and meshes stand at put in where it is used. */
export function withDials(effect: Effect): Effect {
  const given = listed(effect.dials).filter(({ item }) => isGiven(item));
  if (given.length === 0) return effect;
  const draft = structuredCopy(effect);
  for (const { id } of given) putIn(draft, id);
  return draft;
}

/** Puts in what one dial stands at, in a draft, wherever it is used. */
export function putIn(draft: Effect, id: Id): void {
  const dial = draft.dials.byId[id];
  if (dial?.kind === 'place' || dial?.kind === 'direction') {
    for (const { holder } of refsTo(draft, 'dials', id)) if (isPlaceOf(holder)) given(holder, dial);
  } else if (dial?.kind === 'picture' || dial?.kind === 'mesh') {
    for (const { holder } of assetsDialledBy(draft, id)) Object.assign(holder, structuredCopy(dial.shows));
  }
}

const isPlaceOf = (holder: object): holder is Extract<Place, { kind: 'dial' }> => 'offset' in holder;

/** Rewrites a place that a dial gives: of the world, or turned within the effect. */
function given(place: Extract<Place, { kind: 'dial' }>, dial: Extract<Dial, { kind: 'place' | 'direction' }>): void {
  const at = <T extends Pick<PlaceKey, 'offset' | 'turn'>>(hung: T): T =>
    dial.kind === 'place'
      ? { ...hung, offset: hung.offset.map((x, axis) => x + dial.at[axis]!) as Vector }
      : { ...hung, turn: turnedBy(dial.turn, hung.turn) };
  const { offset, turn } = at({ offset: place.offset, turn: place.turn });
  const keys = collectionOf(listed(place.keys).map(({ id, item }) => [id, at(item)] as const));
  delete (place as { dial?: Id }).dial;
  Object.assign(place, { kind: dial.kind === 'place' ? 'world' : 'effect', offset, turn, keys });
}

function turnedBy(outer: Vector, inner: Vector): Vector {
  const matrix = new Float64Array(16);
  rotationInto(matrix, ...outer);
  return carriedTurn({ matrix }, inner);
}
