import type { PixelStep, ProbedPixel } from '@jinx/stage';
import { onBeforeUnmount, ref, shallowRef, watch, type Ref } from 'vue';
import type { Engine } from '../../engine/engine';
import { answered } from '../../engine/calls';
import { useEffectStore } from '../../stores/effect';
import type { Probe } from './probe';

/** After the last change, before the pixel is taken apart again. */
const QUIET_MILLISECONDS = 250;

/**
 * What made the pixel under the glass, anew after each change; and, of the layer that is opened, what its look gives step by
 * step. While the effect plays, what was found last stays.
 */
export function usePixel(
  engine: Engine,
  probe: Probe,
  opened: Ref<string | null>,
): { pixel: Ref<ProbedPixel | null>; steps: Ref<readonly PixelStep[] | null>; isBusy: Ref<boolean> } {
  const store = useEffectStore();
  const pixel = shallowRef<ProbedPixel | null>(null);
  const steps = shallowRef<readonly PixelStep[] | null>(null);
  const isBusy = ref(false);
  let timer = 0;
  let asked = 0;
  async function take(): Promise<void> {
    const place = probe.pixel;
    const mine = ++asked;
    if (!place) return;
    isBusy.value = true;
    const answer = await answered(engine.stage.pixel(place.x, place.y));
    if (mine !== asked) return;
    pixel.value = answer?.pixel ?? null;
    const layer = store.effect?.layers.byId[opened.value ?? ''];
    const looked = layer ? await answered(engine.stage.pixelSteps(place.x, place.y, layer.salt)) : null;
    if (mine !== asked) return;
    steps.value = looked?.steps ?? null;
    isBusy.value = false;
  }
  const later = () => {
    window.clearTimeout(timer);
    if (!engine.state.isPlaying && engine.state.progress === 1)
      timer = window.setTimeout(() => void take(), QUIET_MILLISECONDS);
  };
  watch(
    [
      () => probe.pixel,
      () => store.effect,
      () => engine.state.step,
      () => engine.state.progress,
      () => engine.state.isPlaying,
      engine.tracked,
    ],
    later,
    { immediate: true },
  );
  watch(opened, () => {
    steps.value = null;
    later();
  });
  onBeforeUnmount(() => window.clearTimeout(timer));
  return { pixel, steps, isBusy };
}
