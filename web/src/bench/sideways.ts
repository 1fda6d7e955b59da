/** Pixels the pointer may wander before a press becomes a drag. */
const SLACK = 4;
const PIXELS_A_STEP = 2;

/** Dragging a value sideways: whole steps from where it was pressed, ten at a time with Shift. A press alone is a click. */
export function sideways(value: { by: (steps: number) => void; click: () => void; end: () => void }) {
  let from: number | null = null;
  let hasMoved = false;
  return {
    press(event: PointerEvent): void {
      if (event.button !== 0) return;
      from = event.clientX;
      hasMoved = false;
      (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
    },
    move(event: PointerEvent): void {
      if (from === null) return;
      const distance = event.clientX - from;
      if (!hasMoved && Math.abs(distance) < SLACK) return;
      hasMoved = true;
      value.by(Math.round(distance / PIXELS_A_STEP) * (event.shiftKey ? 10 : 1));
    },
    release(): void {
      if (from === null) return;
      from = null;
      if (hasMoved) value.end();
      else value.click();
    },
    cancel(): void {
      if (from !== null && hasMoved) value.end();
      from = null;
    },
  };
}
