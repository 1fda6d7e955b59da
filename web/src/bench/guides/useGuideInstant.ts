import { areShapedBy, placesOf, type Effect } from '@jinx/core/document';
import { EffectClock, setTime } from '@jinx/core/simulation';
import { computed, shallowRef, watch, type ComputedRef } from 'vue';
import type { Engine } from '../../engine/engine';
import { useEffectStore } from '../../stores/effect';
import { holderIn } from '../holders';
import { holderPath } from '../handles/knobs';
import { AT_FIRST, TIMES, type GuideInstant } from './matrices';

/** Guides that move or grow are drawn anew so often while playing. */
const EVERY_MILLISECONDS = 100;

/** Whether anything drawn for a layer is another at another instant: a place with keys, a size shaped over time. */
const isMoving = (effect: Effect, layerId: string): boolean =>
  placesOf(effect, layerId).some(
    ({ id, place }) =>
      place.keys.order.length > 0 ||
      areShapedBy(holderIn(effect, layerId, holderPath(effect, layerId, id))?.settings ?? {}, TIMES),
  );

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
    const { stretches } = store.effect!;
    const instant = { seconds: seconds.value, effectTime: 0, stretchTime: 0 };
    // Along the sheet, as it is when let go after one turn of its hold.
    const { opening, hold } = new EffectClock(stretches);
    setTime(instant, new EffectClock(stretches, opening + hold), seconds.value);
    return instant;
  });
}
