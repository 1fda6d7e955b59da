import type { Effect, Id } from '@jinx/core/document';
import type { Extent } from '@jinx/stage';
import { useIntervalFn } from '@vueuse/core';
import { shallowRef, watch, type Ref } from 'vue';
import { answered } from '../../engine/calls';
import type { Engine } from '../../engine/engine';
import { useEffectStore } from '../../stores/effect';

/** How often the size of what is chosen is measured while it plays. */
const EVERY_MILLISECONDS = 500;

/** Measures how far the living of some layers reach in the picture; null where none lives. */
export async function measureExtent(engine: Engine, effect: Effect, ids: readonly Id[]): Promise<Extent | null> {
  const salts = ids.flatMap((id) => effect.layers.byId[id]?.salt ?? []);
  const answer = salts.length > 0 ? await answered(engine.stage.extent(salts)) : null;
  return answer?.extent ?? null;
}

/** How far the living of the chosen layers reach in the picture, kept up for as long as it is shown; null while none lives. */
export function useExtent(engine: Engine): Ref<Extent | null> {
  const store = useEffectStore();
  const extent = shallowRef<Extent | null>(null);
  async function measure(): Promise<void> {
    const asked = store.chosenIds;
    const found = await measureExtent(engine, store.effect!, asked);
    if (asked === store.chosenIds) extent.value = found;
  }
  const { pause, resume } = useIntervalFn(() => void measure(), EVERY_MILLISECONDS);
  watch(
    () => engine.state.isPlaying,
    (isPlaying) => (isPlaying ? resume() : pause()),
    { immediate: true },
  );
  // What was measured of others says nothing of these.
  watch(
    () => store.chosenIds,
    () => (extent.value = null),
  );
  // While it stands, the picture of a change is drawn once it was computed.
  watch(
    [() => store.chosenIds, () => store.effect, () => engine.state.step, engine.tracked, () => engine.state.progress],
    () => {
      if (!engine.state.isPlaying) void measure();
    },
    { immediate: true },
  );
  return extent;
}
