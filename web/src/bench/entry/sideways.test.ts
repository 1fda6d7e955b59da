import { describe, expect, it } from 'vitest';
import { sideways } from './sideways';

function dragged() {
  const told: (number | string)[] = [];
  const drag = sideways({
    begin: () => undefined,
    dragBegins: () => told.push('begins'),
    by: (steps) => told.push(steps),
    click: () => told.push('click'),
    end: () => told.push('end'),
  });
  const at = (clientX: number, more: object = {}) =>
    ({ clientX, button: 0, pointerId: 1, currentTarget: { setPointerCapture: () => undefined }, ...more }) as never;
  return { told, drag, at };
}

describe('a sideways drag', () => {
  it('gives steps from where it was pressed, not from the last move', () => {
    const { told, drag, at } = dragged();
    drag.pointerdown(at(100));
    for (const x of [110, 130, 90]) drag.pointermove(at(x));
    drag.pointerup(at(0));
    expect(told).toEqual(['begins', 5, 15, -5, 'end']);
  });

  it('goes ten times as fast with Shift', () => {
    const { told, drag, at } = dragged();
    drag.pointerdown(at(100));
    drag.pointermove(at(110, { shiftKey: true }));
    expect(told).toEqual(['begins', 50]);
  });

  it('is a click when the pointer hardly moved', () => {
    const { told, drag, at } = dragged();
    drag.pointerdown(at(100));
    drag.pointermove(at(103));
    drag.pointerup(at(0));
    expect(told).toEqual(['click']);
  });

  it('does nothing by other buttons, nor without a press', () => {
    const { told, drag, at } = dragged();
    drag.pointerdown(at(100, { button: 2 }));
    drag.pointermove(at(150));
    drag.pointerup(at(0));
    expect(told).toEqual([]);
  });

  it('that is broken off is a step of undo all the same', () => {
    const { told, drag, at } = dragged();
    drag.pointerdown(at(100));
    drag.pointermove(at(120));
    drag.pointercancel();
    drag.pointermove(at(140));
    expect(told).toEqual(['begins', 10, 'end']);
  });
});
