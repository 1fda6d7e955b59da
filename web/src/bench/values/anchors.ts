import type { StageRigs } from '@jinx/core/checks';
import { emptyCollection, listed, type Effect, type Place } from '@jinx/core/document';

/** What a place hangs on. */
export type Anchor =
  | { readonly kind: 'effect' | 'world' }
  | { readonly kind: 'thing'; readonly thing: string }
  | { readonly kind: 'bone'; readonly thing: string; readonly bone: string }
  | { readonly kind: 'dial'; readonly dial: string };
export interface AnchorChoice {
  readonly value: string;
  readonly text: string;
  readonly anchor: Anchor;
}

export function keyOfAnchor(anchor: Anchor): string {
  const { kind } = anchor;
  if (kind === 'bone') return `${kind} ${anchor.thing} ${anchor.bone}`;
  return kind === 'thing' ? `${kind} ${anchor.thing}` : kind === 'dial' ? `${kind} ${anchor.dial}` : kind;
}
const choice = (anchor: Anchor, text: string): AnchorChoice => ({ value: keyOfAnchor(anchor), text, anchor });

/** All that something can stand on: the effect, the world, dials that say a place or a direction, figures and their bones. */
export function anchorsOf({ stage: { things }, dials }: Effect, rigs: StageRigs): AnchorChoice[] {
  return [
    choice({ kind: 'effect' }, "the effect's middle"),
    choice({ kind: 'world' }, 'the middle of the world'),
    ...listed(dials).flatMap(({ id, item }) =>
      item.kind === 'place' || item.kind === 'direction'
        ? [
            choice(
              { kind: 'dial', dial: id },
              item.kind === 'place' ? item.name : `the effect’s middle, by ${item.name}`,
            ),
          ]
        : [],
    ),
    ...listed(things).flatMap(({ id, item }) => [
      choice({ kind: 'thing', thing: id }, `${item.name}'s feet`),
      ...(rigs.get(id)?.bones ?? []).map(({ name }) =>
        choice({ kind: 'bone', thing: id, bone: name }, things.order.length > 1 ? `${item.name}, ${name}` : name),
      ),
    ]),
  ];
}

/** A place hung on something else: on a bone it begins at its joint, on anything else a metre up; a dial says where. */
export function hungOn(place: Place, anchor: Anchor): Place {
  const isBone = anchor.kind === 'bone';
  const offset: Place['offset'] =
    anchor.kind === 'dial'
      ? [0, 0, 0]
      : isBone === (place.kind === 'bone')
        ? place.offset
        : isBone
          ? [0, 0, 0]
          : [0, 1, 0];
  return { ...anchor, offset, turn: place.turn, keys: emptyCollection<never>() };
}
