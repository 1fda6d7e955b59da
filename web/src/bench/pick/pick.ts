import { shallowRef } from 'vue';
import type { Strip } from '../../thumbnails/strip';
import type { Findable } from './finder';

/** One thing of a list. */
export interface PickItem extends Findable {
  readonly value: string;
  /** A colour that stands before it, as CSS. */
  readonly swatch?: string | undefined;
  /** The address of a small picture of it. */
  readonly picture?: string | undefined;
  /** A small picture of it that plays while it is pointed at. */
  readonly strip?: Strip | undefined;
  /** Under which heading it stands. */
  readonly group?: string | undefined;
  /** What it does, as its tooltip. */
  readonly help?: string | undefined;
}
/** A list that is open: chosen from by pointing, walking with the arrows, or typing. */
export interface Pick {
  readonly label: string;
  /** What there is to choose, as it is now: more may come while the list is open. */
  readonly items: () => readonly PickItem[];
  /** What stands now; nothing in a menu, which acts. */
  readonly chosen: string | null;
  readonly anchor: HTMLElement;
  /** What was typed before it opened. */
  readonly typed: string;
  /** What was typed, as something to choose, where it may be more than what is listed. */
  readonly offer?: ((typed: string) => PickItem | null) | undefined;
  readonly choose: (value: string) => void;
  /** Hears what is pointed at; null when nothing is any more. */
  readonly point: (value: string | null) => void;
}

/** The page has one list; whoever has something to choose from opens it. */
export const openPick = shallowRef<Pick | null>(null);

/** Whether the open list belongs to something in `holder`, which then stays open with it. */
export const isPickingIn = (holder: HTMLElement | undefined): boolean =>
  openPick.value !== null && holder?.contains(openPick.value.anchor) === true;

/** Closes the list and gives the focus back to what opened it. */
export function closePick(): void {
  const pick = openPick.value;
  if (!pick) return;
  openPick.value = null;
  pick.point(null);
  pick.anchor.focus({ preventScroll: true });
}
