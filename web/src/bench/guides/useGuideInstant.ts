import { areShapedBy, FORCES, forcesOn, holderAt, placesOf, type Effect } from '@jinx/core/document';
import { EffectClock, setTime } from '@jinx/core/simulation';
import { computed, shallowRef, watch, type ComputedRef } from 'vue';
import type { Engine } from '../../engine/engine';
import { useEffectStore } from '../../stores/effect';
import { holderOfPlace } from '../handles/knobs';
import { AT_FIRST, TIMES, type GuideInstant } from './matrices';

/** Guides that move or grow are drawn anew so often while playing. */
const EVERY_MILLISECONDS = 100;

/** Whether anything drawn for a layer is another at another instant: a place with keys, a size shaped over time. */
const isMoving = (effect: Effect, layerId: string): boolean =>
  placesOf(effect, layerId).some(
    ({ address, place }) =>
      place.keys.order.length > 0 ||
      areShapedBy(holderAt(effect, holderOfPlace(address, layerId))?.settings ?? {}, TIMES),
  );

const hasSwirls = (effect: Effect, layerId: string): boolean =>
  effect.layers.byId[layerId] !== undefined &&
  forcesOn(effect, layerId).some(({ item }) => !item.muted && FORCES[item.kind].isDrawnOverTime);

/** The instant that guides are drawn for: it stays the first while nothing drawn hangs on it. */
export function useGuideInstant(engine: Engine): ComputedRef<GuideInstant> {
  const store = useEffectStore();
  const seconds = shallowRef(0);
  const at = shallowRef<readonly [number, number]>([0, 0]);
  const moves = computed(() => store.effect !== null && isMoving(store.effect, store.chosenId));
  let setAt = 0;
  watch(
    () => [engine.state.sheetTime, engine.state.isPlaying, engine.tracked.value] as const,
    ([time, isPlaying]) => {
      const now = performance.now();
      // The many lines of swirls are drawn anew only where the clock stands.
      if (isPlaying && (!moves.value || now - setAt < EVERY_MILLISECONDS)) return;
      setAt = now;
      at.value = engine.tracked.value.followed;
      seconds.value = time;
    },
  );
  const swirls = computed(() => store.effect !== null && hasSwirls(store.effect, store.chosenId));
  return computed(() => {
    if (!moves.value && !swirls.value) return AT_FIRST;
    const { stretches } = store.effect!;
    const followed = swirls.value ? at.value : ([0, 0] as const);
    const instant = { seconds: seconds.value, time: 0, effectTime: 0, stretchTime: 0, followed };
    // Along the sheet, as it is when let go after one turn of its hold.
    const { opening, hold } = new EffectClock(stretches);
    setTime(instant, new EffectClock(stretches, opening + hold), seconds.value);
    return instant;
  });
}
