/** Follows a pointer that was pressed on an element until it is let go. */
export function dragBy(event: PointerEvent, moved: (event: PointerEvent) => void, done?: () => void): void {
  const target = event.currentTarget as HTMLElement | SVGElement;
  target.setPointerCapture(event.pointerId);
  target.onpointermove = moved;
  target.onpointerup = target.onpointercancel = () => {
    target.onpointermove = target.onpointerup = target.onpointercancel = null;
    done?.();
  };
}
