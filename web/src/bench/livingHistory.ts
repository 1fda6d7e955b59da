import { EffectClock } from '@jinx/core/simulation';
import { shallowRef, watch, type Ref } from 'vue';
import type { Engine } from '../engine/engine';
import { useEffectStore } from '../stores/effect';

const BUCKETS = 60;

/** How many of each layer lived at each place of the time sheet, as far as it was played; −1 where it was not. */
export function useLivingHistory(engine: Engine): Ref<Readonly<Record<string, readonly number[]>>> {
  const store = useEffectStore();
  const history = shallowRef<Record<string, number[]>>({});
  watch(
    () => engine.state.sheetTime,
    (time) => {
      const effect = store.effect;
      const length = effect ? new EffectClock(effect.stretches).length : 0;
      if (!effect || length === 0 || engine.state.progress < 1) return;
      const bucket = Math.min(BUCKETS, Math.max(0, Math.round((time / length) * BUCKETS)));
      const next: Record<string, number[]> = {};
      for (const id of effect.layers.order) {
        const salt = effect.layers.byId[id]!.salt;
        next[id] = [...(history.value[id] ?? new Array<number>(BUCKETS + 1).fill(-1))];
        next[id][bucket] = engine.state.layers.find((layer) => layer.salt === salt)?.living ?? 0;
      }
      history.value = next;
    },
  );
  return history;
}
