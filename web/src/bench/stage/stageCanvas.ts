import { onBeforeUnmount, onMounted, shallowRef, watch, type Ref, type ShallowRef } from 'vue';
import type { Engine } from '../../engine/engine';

/** The screen's own pixels for each of the page's; more than two are not told apart. */
const density = (): number => Math.min(2, window.devicePixelRatio);

/**
 * Puts a canvas into an element, as its first child, and lets an engine draw on it as finely as the screen shows it. The
 * canvas keeps to the element's size. It is one that the stage draws on already, where there is one; a stage that was started
 * again needs another, since one is given away for ever.
 */
export function useStageCanvas(
  engine: Engine,
  holder: Readonly<Ref<HTMLElement | undefined>>,
): Readonly<ShallowRef<HTMLCanvasElement | undefined>> {
  const canvas = shallowRef<HTMLCanvasElement>();
  const pixels = ({ width, height }: { width: number; height: number }) => ({
    width: width * density(),
    height: height * density(),
  });
  const watcher = new ResizeObserver(([entry]) => engine.stage.send({ kind: 'size', ...pixels(entry!.contentRect) }));
  function start(): void {
    const { width, height } = pixels(holder.value!.getBoundingClientRect());
    const begun = engine.stage.canvas;
    const next = begun ?? document.createElement('canvas');
    if (begun) engine.stage.size(width, height);
    else engine.stage.start(next, width, height);
    canvas.value?.remove();
    holder.value!.prepend(next);
    canvas.value = next;
  }
  onMounted(() => {
    start();
    watcher.observe(holder.value!);
  });
  watch(engine.stageRuns, start);
  onBeforeUnmount(() => watcher.disconnect());
  return canvas;
}
