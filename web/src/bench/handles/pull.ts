import type { Effect } from '@jinx/core/document';
import type { Sight } from './picture';

/** Pixels the pointer may wander before a press becomes a drag. */
const SLACK = 3;

/** What a pull changes: given the line of sight under the pointer, a recipe for the document, or null for no change. */
export type Pulled = (sight: Sight, isSnapped: boolean) => ((draft: Effect) => void) | null;

export interface PullHost {
  /** The line of sight under a pointer. */
  sight(event: PointerEvent): Sight;
  /** The pointer was pressed. */
  begin(): void;
  /** A drag has begun; called once, before its first change. */
  dragBegins(): void;
  change(recipe: (draft: Effect) => void): void;
  /** The drag is over; `isGivenUp` when Escape ended it. */
  end(isGivenUp: boolean): void;
  /** It was pressed and let go in place. */
  click?(): void;
}

/** Follows a pointer from its press on: a change for each movement, one step of undo, given up by Escape. */
export function pull(event: PointerEvent, host: PullHost, start: (sight: Sight) => Pulled): void {
  if (event.button !== 0) return;
  event.preventDefault();
  event.stopPropagation();
  const target = event.currentTarget as SVGElement;
  target.setPointerCapture(event.pointerId);
  target.focus();
  host.begin();
  const pulled = start(host.sight(event));
  let hasMoved = false;
  const move = (at: PointerEvent): void => {
    if (!hasMoved && Math.hypot(at.clientX - event.clientX, at.clientY - event.clientY) < SLACK) return;
    if (!hasMoved) host.dragBegins();
    hasMoved = true;
    const recipe = pulled(host.sight(at), at.ctrlKey || at.metaKey);
    if (recipe) host.change(recipe);
  };
  const stop = (isGivenUp: boolean): void => {
    target.removeEventListener('pointermove', move);
    target.removeEventListener('pointerup', up);
    target.removeEventListener('pointercancel', up);
    window.removeEventListener('keydown', escape, true);
    if (hasMoved) host.end(isGivenUp);
    else host.click?.();
  };
  const up = () => stop(false);
  const escape = (pressed: KeyboardEvent): void => {
    if (pressed.key !== 'Escape') return;
    pressed.stopPropagation();
    stop(true);
  };
  target.addEventListener('pointermove', move);
  target.addEventListener('pointerup', up);
  target.addEventListener('pointercancel', up);
  window.addEventListener('keydown', escape, true);
}
