import type { Extent } from '@jinx/stage';
import { useIntervalFn } from '@vueuse/core';
import { computed, shallowRef, watch, type Ref } from 'vue';
import { answered } from '../../engine/calls';
import type { Engine } from '../../engine/engine';
import { useEffectStore } from '../../stores/effect';

/** How often the size of what is chosen is measured while it plays. */
const EVERY_MILLISECONDS = 500;

/** How far the living of the chosen layers reach in the picture; null while none lives. */
export function useExtent(engine: Engine): { extent: Ref<Extent | null>; measure: () => Promise<Extent | null> } {
  const store = useEffectStore();
  const extent = shallowRef<Extent | null>(null);
  const salts = computed(() => store.chosenIds.flatMap((id) => store.effect?.layers.byId[id]?.salt ?? []));
  async function measure(): Promise<Extent | null> {
    const asked = salts.value;
    const answer = asked.length > 0 ? await answered(engine.stage.extent([...asked])) : null;
    if (asked === salts.value) extent.value = answer?.extent ?? null;
    return answer?.extent ?? null;
  }
  const { pause, resume } = useIntervalFn(() => void measure(), EVERY_MILLISECONDS);
  watch(
    () => engine.state.isPlaying,
    (isPlaying) => (isPlaying ? resume() : pause()),
    { immediate: true },
  );
  // While it stands, the picture of a change is drawn once it was computed.
  watch([salts, () => engine.state.step, engine.tracked, () => engine.state.progress], () => {
    if (!engine.state.isPlaying) void measure();
  });
  return { extent, measure };
}
