import { message } from 'ant-design-vue';
import { onBeforeUnmount, ref, type Ref } from 'vue';
import type { Engine } from '../../engine/engine';
import { BROWSER_THREADS, reasonOf } from '../../engine/threads';
import { useEffectStore } from '../../stores/effect';
import type { ReachAnswer, ReachOrder } from './reachWorker';

const fail = (sentence: string): void => void message.error(sentence, 6);

/** Millimetres: finer than that nothing is culled. */
const rounded = (x: number): number => Math.round(x * 1000) / 1000;

/** Measures what the effect on the bench reaches, in a worker, and keeps it as its culling bounds. */
export function useReach(engine: Engine): { isMeasuring: Ref<boolean>; measure: () => void; cancel: () => void } {
  const store = useEffectStore();
  const isMeasuring = ref(false);
  let worker: Worker | null = null;
  function cancel(): void {
    worker?.terminate();
    worker = null;
    isMeasuring.value = false;
  }
  function keep(box: ReachAnswer): void {
    cancel();
    if (!box) return fail('Nothing of the effect is ever seen, so that it reaches nothing.');
    const [low, high] = [box.least, box.most].map((corner) => [...corner].map(rounded) as [number, number, number]);
    store.change('measure what it reaches', (draft) => (draft.quality.bounds = { low: low!, high: high! }));
  }
  async function begin(): Promise<void> {
    const effect = store.effect!;
    const kernels = await BROWSER_THREADS.kernels();
    if (!isMeasuring.value) return;
    worker = new Worker(new URL('./reachWorker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<ReachAnswer>) => keep(data);
    worker.onerror = (event) => {
      cancel();
      fail(`What it reaches could not be measured: ${reasonOf(event)}.`);
    };
    worker.postMessage({ effect, rigs: engine.assets.rigsOf(effect), kernels } satisfies ReachOrder);
  }
  function measure(): void {
    cancel();
    isMeasuring.value = true;
    begin().catch((error: Error) => {
      cancel();
      fail(error.message);
    });
  }
  onBeforeUnmount(cancel);
  return { isMeasuring, measure, cancel };
}
