import type { Engine } from '../../engine/engine';
import { answered } from '../../engine/calls';
import { useEffectStore } from '../../stores/effect';

/** Pixels that the pointer may go between press and release, and that a click may lie from the one before. */
const STILL_PIXELS = 4;

interface Clicked {
  readonly x: number;
  readonly y: number;
}

const isNear = (a: Clicked, b: Clicked): boolean => Math.hypot(a.x - b.x, a.y - b.y) <= STILL_PIXELS;

/**
 * A click on the picture chooses the layer that is seen most there; clicked again, the one behind it. With Shift or Ctrl it is
 * chosen beside the others. A double click opens its row, by `openRow`. A drag chooses nothing: it moves the camera.
 */
export function useClickToChoose(engine: Engine, openRow: () => void) {
  const store = useEffectStore();
  let pressed: Clicked = { x: -1, y: -1 };
  let chosenBefore = '';
  let last: Clicked & { layers: readonly string[] } = { ...pressed, layers: [] };
  const pointOf = ({ clientX: x, clientY: y }: MouseEvent): Clicked => ({ x, y });

  /** The layers of this effect seen there; those of linked effects are left out. */
  async function layersAt(event: MouseEvent): Promise<readonly string[]> {
    const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
    const { x, y } = pointOf(event);
    const answer = await answered(engine.stage.seenAt((x - box.left) / box.width, (y - box.top) / box.height));
    const { byId, order } = store.effect!.layers;
    return (answer?.salts ?? []).flatMap((salt) => order.find((id) => byId[id]!.salt === salt) ?? []);
  }

  const press = (event: PointerEvent) => (pressed = pointOf(event));
  async function click(event: MouseEvent): Promise<void> {
    const at = pointOf(event);
    if (event.button !== 0 || !isNear(at, pressed) || !store.effect) return;
    if (event.detail > 1) {
      // The first of the two clicks is none of its own.
      if (store.effect.layers.byId[chosenBefore] && last.layers.includes(chosenBefore)) store.choose([chosenBefore]);
      return openRow();
    }
    chosenBefore = store.chosenId;
    const isAgain = isNear(at, last) && last.layers.includes(store.chosenId);
    const layers = isAgain ? last.layers : await layersAt(event);
    last = { ...at, layers };
    if (layers.length === 0) return;
    const next = layers[isAgain ? (layers.indexOf(store.chosenId) + 1) % layers.length : 0]!;
    const isBeside = event.shiftKey || event.ctrlKey || event.metaKey;
    store.choose(isBeside ? [next, ...store.chosenIds.filter((id) => id !== next)] : [next]);
  }
  return { press, click: (event: MouseEvent) => void click(event) };
}
