import type { Curve } from '@jinx/core/document';
import { placeOnLife } from '@jinx/core/maths';
import { ref, type Ref } from 'vue';
import { keysWithin, moveKeys, scaleKeys, stretchKeys, type Bounds, type KeyIds } from './curveEdit';
import type { CurveScale } from './curveScale';
import { dragBy } from '../dragBy';
import { tidy } from '../keyPlaces';

/** What a drag with Ctrl goes by: a share of the ruler, and of what the curve says. */
const SNAP = 0.05;
const snapped = (value: number) => Math.round(value / SNAP) * SNAP;

export interface CurveHost {
  readonly svg: Ref<SVGSVGElement | undefined>;
  readonly scale: Readonly<Ref<CurveScale>>;
  readonly chosen: Ref<KeyIds>;
  readonly curve: () => Curve;
  readonly bounds: () => Bounds;
  change(curve: Curve, gesture: string | null): void;
  done(): void;
}

/** What pulling the parts of a curve does: keys, their slopes, the box about several, and the ground. */
export function useCurveDrags(host: CurveHost) {
  /** The box that is being drawn to choose keys. */
  const boxed = ref<{ x: number; y: number; width: number; height: number } | null>(null);

  function pointOf(event: MouseEvent): { x: number; y: number } {
    const box = host.svg.value!.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  }

  /** Follows a pull from the curve as it was when it began; the scale stays, so that nothing runs away under the pointer. */
  function pull(event: PointerEvent, gesture: string, to: (start: Curve, move: PointerEvent) => Curve): void {
    event.preventDefault();
    event.stopPropagation();
    const start = host.curve();
    (event.currentTarget as SVGElement).focus();
    dragBy(event, (move) => host.change(to(start, move), gesture), host.done);
  }

  /** Pulls a key, and with it all that are chosen; with Shift or Ctrl pressed at first it joins or leaves them. */
  function pullKey(event: PointerEvent, id: string): void {
    if (event.button !== 0) return;
    if (event.shiftKey) {
      const ids = new Set(host.chosen.value);
      if (!ids.delete(id)) ids.add(id);
      host.chosen.value = ids;
      event.preventDefault();
      return;
    }
    if (!host.chosen.value.has(id)) host.chosen.value = new Set([id]);
    const ids = host.chosen.value;
    const scale = host.scale.value;
    const from = pointOf(event);
    pull(event, `keys ${[...ids].join()}`, (start, move) => {
      const { x, y } = pointOf(move);
      const key = start.keys.byId[id]!;
      const age = placeOnLife(key.at, host.bounds().life);
      let [dx, dy] = [(x - from.x) / scale.width, scale.value(y) - scale.value(from.y)];
      if (move.ctrlKey || move.metaKey) [dx, dy] = [snapped(age + dx) - age, snapped(key.value + dy) - key.value];
      return moveKeys(start, ids, dx, dy, host.bounds());
    });
  }

  /** Turns a key's slope on one side, or with Alt not on the other. */
  function turn(event: PointerEvent, id: string, side: 'slopeIn' | 'slopeOut'): void {
    const scale = host.scale.value;
    const direction = side === 'slopeOut' ? 1 : -1;
    pull(event, `slope ${id}`, (start, move) => {
      const key = start.keys.byId[id]!;
      const { x, y } = pointOf(move);
      const along = Math.max(3, direction * (x - scale.x(placeOnLife(key.at, host.bounds().life))));
      const slope = tidy(scale.slope((direction * (scale.y(key.value) - y)) / along));
      const next = move.altKey ? { ...key, [side]: slope } : { ...key, slopeIn: slope, slopeOut: slope };
      return { keys: { order: start.keys.order, byId: { ...start.keys.byId, [id]: next } } };
    });
  }

  /** Stretches the chosen keys between two edges of their box, given as pixels: `from` is pulled, `about` stays. */
  function stretch(event: PointerEvent, from: number, about: number): void {
    const ids = host.chosen.value;
    const scale = host.scale.value;
    pull(event, 'stretch keys', (start, move) => {
      const factor = Math.max(0.02, (pointOf(move).x - about) / (from - about || 1e-6));
      return stretchKeys(start, ids, factor, scale.age(about), host.bounds());
    });
  }
  /** Makes the chosen keys higher or lower, by the upper edge of their box. */
  function raise(event: PointerEvent, top: number): void {
    const ids = host.chosen.value;
    const scale = host.scale.value;
    pull(event, 'raise keys', (start, move) => {
      const highest = scale.value(top);
      const factor = highest === 0 ? 1 : Math.max(0, scale.value(pointOf(move).y) / highest);
      return scaleKeys(start, ids, tidy(factor), host.bounds());
    });
  }

  /** Draws a box on the ground: keys in it are chosen, with Shift beside those that are. */
  function box(event: PointerEvent): void {
    if (event.button !== 0) return;
    const from = pointOf(event);
    const scale = host.scale.value;
    const before: KeyIds = event.shiftKey ? host.chosen.value : new Set();
    host.chosen.value = before;
    dragBy(
      event,
      (move) => {
        const to = pointOf(move);
        const [left, right] = [Math.min(from.x, to.x), Math.max(from.x, to.x)];
        const [top, bottom] = [Math.min(from.y, to.y), Math.max(from.y, to.y)];
        boxed.value = { x: left, y: top, width: right - left, height: bottom - top };
        const within = keysWithin(
          host.curve(),
          host.bounds().life,
          [scale.age(left), scale.value(bottom)],
          [scale.age(right), scale.value(top)],
        );
        host.chosen.value = new Set([...before, ...within]);
      },
      () => (boxed.value = null),
    );
  }

  return { boxed, pointOf, pullKey, turn, stretch, raise, box };
}
