import {
  listed,
  newGroup,
  structuredCopy,
  withItem,
  type Effect,
  type Id,
  type Random32,
} from '../document/index.ts';
import { hash2, slotOf } from '../maths/index.ts';
import { pasteEffect, type Pasted } from './clip.ts';
import { withDials } from './dialled.ts';
import { carrying, carryPlace } from './regroup.ts';

/** An effect with all that is linked into it taken in, as it is computed and drawn. */
export interface Whole {
  readonly effect: Effect;
  /** The layers that came of each group that is another effect. */
  readonly layersOf: ReadonlyMap<Id, readonly Id[]>;
  /** What of each had no match here. */
  readonly lostOf: ReadonlyMap<Id, readonly string[]>;
}

const known = new WeakMap<Effect, Whole>();

/**
 * Takes in what is linked into an effect: its layers stand in the group that it is, go by this effect's stretches, and use
 * this effect's colours, measures, dials and channels where those have the same names. An effect without any is itself. The
 * same effect gives the same ids and salts. What dials of places, directions, pictures and meshes stand at is put in.
 */
export function wholeOf(effect: Effect): Whole {
  const before = known.get(effect);
  if (before) return before;
  const draft = { ...effect, groups: { order: effect.groups.order, byId: { ...effect.groups.byId } } };
  const layersOf = new Map<Id, readonly Id[]>();
  const lostOf = new Map<Id, readonly string[]>();
  for (const { id, item } of listed(effect.groups)) {
    if (!item.linked) continue;
    if (item.linked.hidden) {
      draft.groups.byId[id] = { ...item, linked: null };
      layersOf.set(id, []);
    } else {
      const { layers, lost } = takeIn(draft, id);
      layersOf.set(id, layers);
      lostOf.set(id, lost);
    }
  }
  const whole = { effect: withDials(layersOf.size > 0 ? draft : effect), layersOf, lostOf };
  known.set(effect, whole);
  return whole;
}

/** Makes what is linked into a group a part of the effect, in a draft: it is the same as before, and follows no more. */
export function takeIn(draft: Effect, id: Id): Pick<Pasted, 'layers' | 'lost'> {
  const group = draft.groups.byId[id]!;
  const { linked } = group;
  if (!linked) return { layers: [], lost: [] };
  const at = linked.inFront ? 0 : draft.layers.order.length;
  const { layers, surfaces, lost } = pasteEffect(draft, linked.effect, at, drawsOf(id));
  draft.groups.byId[id] = { ...group, linked: null };
  for (const layer of layers) draft.layers.byId[layer]!.parent = id;
  const by = carrying(draft, id, null);
  for (const surface of surfaces) {
    const item = draft.surfaces.byId[surface]!;
    if ('place' in item) carryPlace(item.place, by);
  }
  return { layers, lost };
}

/** Numbers that are the same for the same group: ids and salts must not change from one edit to the next. */
function drawsOf(id: Id): Random32 {
  const own = slotOf(id);
  let drawn = 0;
  return () => hash2(own, drawn++) >>> 0;
}

/** Links an effect into another, in a draft, as a group of its name. What is linked into it is taken in first. */
export function linkEffect(draft: Effect, id: Id, of: string, effect: Effect): void {
  draft.groups = withItem(draft.groups, id, {
    ...newGroup(effect.name),
    linked: { of, effect: linkable(effect), hidden: false, inFront: false },
  });
}

/** An effect as it is kept in others. */
function linkable(effect: Effect): NonNullable<Effect['groups']['byId'][string]['linked']>['effect'] {
  return structuredCopy(wholeOf(effect).effect) as ReturnType<typeof linkable>;
}

/** The effects that are linked into one, by their ids. */
export const linkedInto = (effect: Effect): string[] =>
  listed(effect.groups).flatMap(({ item }) => (item.linked ? [item.linked.of] : []));

/** An effect in which everything that is linked of another is as that is now. */
export function relinked(effect: Effect, of: string, now: Effect): Effect {
  const byId = { ...effect.groups.byId };
  for (const { id, item } of listed(effect.groups))
    if (item.linked?.of === of) byId[id] = { ...item, linked: { ...item.linked, effect: linkable(now) } };
  return { ...effect, groups: { order: effect.groups.order, byId } };
}

/** An effect that links the same effects by other ids. */
export function withLinkedIds(effect: Effect, ids: ReadonlyMap<string, string>): Effect {
  const byId = { ...effect.groups.byId };
  for (const { id, item } of listed(effect.groups)) {
    const of = item.linked && ids.get(item.linked.of);
    if (of) byId[id] = { ...item, linked: { ...item.linked!, of } };
  }
  return { ...effect, groups: { order: effect.groups.order, byId } };
}
