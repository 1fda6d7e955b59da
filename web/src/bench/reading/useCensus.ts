import type { Census } from '@jinx/core/simulation';
import { onBeforeUnmount, shallowRef, watch, type Ref } from 'vue';
import type { Engine } from '../../engine/engine';
import { answered } from '../../engine/calls';

/** While it plays, a census is taken this often; standing still, at each step that is gone to. */
const EVERY_MILLISECONDS = 500;

/** All the living of a layer, as the simulation stands; null before it has answered, or while none is asked for. */
export function useCensus(engine: Engine, layerId: () => string): Ref<Census | null> {
  const census = shallowRef<Census | null>(null);
  let timer = 0;
  let takenAt = 0;
  async function take(): Promise<void> {
    takenAt = performance.now();
    const id = layerId();
    const answer = id ? await answered(engine.simulation.census(id)) : null;
    // What was asked of another layer meanwhile comes too late.
    if (id === layerId()) census.value = answer?.census ?? null;
  }
  function later(): void {
    window.clearTimeout(timer);
    const wait = engine.state.isPlaying ? Math.max(0, takenAt + EVERY_MILLISECONDS - performance.now()) : 0;
    timer = window.setTimeout(() => void take(), wait);
  }
  watch(
    [() => engine.state.step, () => engine.state.progress, () => engine.state.isExact, layerId],
    () => (engine.state.progress === 1 ? later() : undefined),
    { immediate: true },
  );
  onBeforeUnmount(() => window.clearTimeout(timer));
  return census;
}
