import { nextTick, onBeforeUnmount, onMounted, watch, type Ref } from 'vue';
import type { Engine } from '../../engine/engine';

/** The screen's own pixels for each of the page's; more than two are not told apart. */
const density = (): number => Math.min(2, window.devicePixelRatio);

/**
 * Lets an engine draw on a canvas, as finely as the screen shows it, and keeps to the size of what holds it. The canvas has
 * `engine.stageRuns` as its key: a stage that was started again needs another, since one is given away for ever.
 */
export function useStageCanvas(
  engine: Engine,
  canvas: Readonly<Ref<HTMLCanvasElement | undefined>>,
  holder: Readonly<Ref<HTMLElement | undefined>>,
): void {
  const pixels = ({ width, height }: { width: number; height: number }) => ({
    width: width * density(),
    height: height * density(),
  });
  const watcher = new ResizeObserver(([entry]) => engine.stage.send({ kind: 'size', ...pixels(entry!.contentRect) }));
  function start(): void {
    const { width, height } = pixels(holder.value!.getBoundingClientRect());
    engine.stage.start(canvas.value!, width, height);
  }
  onMounted(() => {
    start();
    watcher.observe(holder.value!);
  });
  watch(engine.stageRuns, () => nextTick(start));
  onBeforeUnmount(() => watcher.disconnect());
}
