import { message } from 'ant-design-vue';
import { onBeforeUnmount } from 'vue';
import type { Engine } from '../../../engine/engine';
import { useEffectStore } from '../../../stores/effect';
import { useCommands, type Commands } from '../../commands/registry';

/** The picture is sent at most so often, and takes no more than a third of the stage's time. */
const LEAST_MILLISECONDS = 1000 / 30;
const SHARE = 1 / 3;
const FEATURES = 'popup,width=1120,height=700';

/**
 * The picture in a window of its own, for another screen: of the same stage, seen from the same place. Its canvas is handed
 * pictures as the bench's own is drawn; keys that are pressed there act on the bench.
 */
export function usePictureWindow(engine: Engine, commands: Commands): void {
  const store = useEffectStore();
  let other: Window | null = null;
  let timer = 0;

  function open(): void {
    if (other && !other.closed) return other.focus();
    other = window.open('', 'jinx picture', FEATURES);
    if (!other) return void message.warning('The browser did not open a window: allow Jinx to open windows.', 6);
    const { document: page } = other;
    page.title = `${store.effect?.name ?? ''}: picture`;
    page.body.replaceChildren();
    page.body.style.cssText = 'margin:0;background:#0c0c0d;overflow:hidden';
    const canvas = page.createElement('canvas');
    canvas.style.cssText = 'display:block;width:100vw;height:100vh';
    page.body.append(canvas);
    other.addEventListener('keydown', (event) => {
      if (window.dispatchEvent(new KeyboardEvent('keydown', { ...keysOf(event), cancelable: true }))) return;
      event.preventDefault();
    });
    window.clearTimeout(timer);
    void draw(canvas.getContext('bitmaprenderer')!, []);
  }
  /** Draws what has changed since `before`, and goes on as long as the window is open. */
  async function draw(context: ImageBitmapRenderingContext, before: readonly unknown[]): Promise<void> {
    if (!other || other.closed) return void (other = null);
    const [width, height] = [other.innerWidth, other.innerHeight].map((size) => Math.max(1, Math.round(size)));
    const { state, stage, edits } = engine;
    const now = [state.step, state.isExact, stage.changes, edits, width, height];
    const begun = performance.now();
    if (now.some((part, n) => part !== before[n])) {
      const answer = await engine.stage.picture(width!, height!).catch(() => null);
      if (answer && other && !other.closed) {
        [context.canvas.width, context.canvas.height] = [width!, height!];
        context.transferFromImageBitmap(answer.bitmap);
      }
    }
    const cost = performance.now() - begun;
    timer = window.setTimeout(() => void draw(context, now), Math.max(LEAST_MILLISECONDS, cost / SHARE - cost));
  }
  useCommands({ 'picture.window': open }, commands);
  onBeforeUnmount(() => {
    window.clearTimeout(timer);
    other?.close();
  });
}

const keysOf = ({ key, code, ctrlKey, shiftKey, altKey, metaKey }: KeyboardEvent) => ({
  ...{ key, code, ctrlKey, shiftKey, altKey, metaKey },
});
