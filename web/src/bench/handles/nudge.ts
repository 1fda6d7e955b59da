/** What an arrow key, Page Up or Page Down moves by: along which axis, and which way. */
export interface Nudge {
  readonly axis: 0 | 1 | 2;
  readonly sign: 1 | -1;
}
type Keys = Readonly<Record<string, Nudge>>;

/** Beside a place: the arrows go along x and y, Page Up and Page Down along z. */
export const UPRIGHT: Keys = {
  ArrowLeft: { axis: 0, sign: -1 },
  ArrowRight: { axis: 0, sign: 1 },
  ArrowDown: { axis: 1, sign: -1 },
  ArrowUp: { axis: 1, sign: 1 },
  PageDown: { axis: 2, sign: -1 },
  PageUp: { axis: 2, sign: 1 },
};
/** Over the ground: the arrows go along x and z, Page Up and Page Down along y. */
export const OVER_GROUND: Keys = {
  ArrowLeft: { axis: 0, sign: -1 },
  ArrowRight: { axis: 0, sign: 1 },
  ArrowUp: { axis: 2, sign: -1 },
  ArrowDown: { axis: 2, sign: 1 },
  PageDown: { axis: 1, sign: -1 },
  PageUp: { axis: 1, sign: 1 },
};

/** What a pressed key moves by; the page does nothing else with such a key. Null for every other key. */
export function nudgeOf(event: KeyboardEvent, keys: Keys = UPRIGHT): Nudge | null {
  const nudge = keys[event.key] ?? null;
  if (!nudge || event.ctrlKey || event.metaKey || event.altKey) return null;
  event.preventDefault();
  event.stopPropagation();
  return nudge;
}
