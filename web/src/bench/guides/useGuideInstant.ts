import { placesOf, type Effect } from '@jinx/core/document';
import { EffectClock } from '@jinx/core/simulation';
import { computed, shallowRef, watch, type ComputedRef } from 'vue';
import type { Engine } from '../../engine/engine';
import { useEffectStore } from '../../stores/effect';
import { holderIn } from '../holders';
import { holderPath } from '../handles/knobs';
import { AT_FIRST, type GuideInstant } from './matrices';

/** Guides that move or grow are drawn anew so often while playing. */
const EVERY_MILLISECONDS = 100;

/** Whether anything drawn for a layer is another at another instant: a place with keys, a size shaped over the effect's time. */
function isMoving(effect: Effect, layerId: string): boolean {
  return placesOf(effect, layerId).some(({ id, place }) => {
    if (place.keys.order.length > 0) return true;
    const settings = Object.values(holderIn(effect, layerId, holderPath(effect, layerId, id))?.settings ?? {});
    return settings.some((setting) =>
      Object.values(setting.shapers.byId).some(({ reads, muted }) => reads.kind === 'effectTime' && !muted),
    );
  });
}

/** The instant that guides are drawn for: it stays the first while nothing drawn hangs on it. */
export function useGuideInstant(engine: Engine): ComputedRef<GuideInstant> {
  const store = useEffectStore();
  const seconds = shallowRef(0);
  let setAt = 0;
  watch(
    () => [engine.state.sheetTime, engine.state.isPlaying] as const,
    ([time, isPlaying]) => {
      const now = performance.now();
      if (isPlaying && now - setAt < EVERY_MILLISECONDS) return;
      setAt = now;
      seconds.value = time;
    },
  );
  const moves = computed(() => store.effect !== null && isMoving(store.effect, store.chosenId));
  return computed(() => {
    if (!moves.value) return AT_FIRST;
    const { length } = new EffectClock(store.effect!.stretches);
    return { seconds: seconds.value, share: length > 0 ? seconds.value / length : 0 };
  });
}
