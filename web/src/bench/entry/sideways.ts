/** Pixels the pointer may wander before a press becomes a drag. */
const SLACK = 4;
const PIXELS_A_STEP = 2;

/** A value that can be dragged: told of the press, of whole steps from there, of a press alone, and of a drag's beginning and end. */
export interface Dragged {
  readonly begin: () => void;
  readonly dragBegins?: () => void;
  readonly by: (steps: number) => void;
  readonly click: (event: PointerEvent) => void;
  readonly end: () => void;
}

/** Dragging a value sideways, ten times as far with Shift and a tenth with Alt: what an element listens with (`v-on`). */
export function sideways(value: Dragged) {
  let from: number | null = null;
  let hasMoved = false;
  return {
    pointerdown(event: PointerEvent): void {
      if (event.button !== 0) return;
      from = event.clientX;
      hasMoved = false;
      (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
      value.begin();
    },
    pointermove(event: PointerEvent): void {
      if (from === null) return;
      const distance = event.clientX - from;
      if (!hasMoved && Math.abs(distance) < SLACK) return;
      if (!hasMoved) value.dragBegins?.();
      hasMoved = true;
      value.by(Math.round(distance / PIXELS_A_STEP) * (event.shiftKey ? 10 : event.altKey ? 0.1 : 1));
    },
    pointerup(event: PointerEvent): void {
      if (from === null) return;
      from = null;
      if (hasMoved) value.end();
      else value.click(event);
    },
    pointercancel(): void {
      if (from !== null && hasMoved) value.end();
      from = null;
    },
  };
}
