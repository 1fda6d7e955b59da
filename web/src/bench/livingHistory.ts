import { ownerOf } from '@jinx/core/document';
import { EffectClock } from '@jinx/core/simulation';
import { onBeforeUnmount, shallowRef, type Ref } from 'vue';
import type { Engine } from '../engine/engine';
import type { SimulationState } from '../engine/protocol';
import { useEffectStore } from '../stores/effect';
import { fill } from './rulers/livingLine';

const BUCKETS = 60;
const SHOW_EVERY_MILLISECONDS = 250;

export type LivingHistory = Readonly<Record<string, readonly number[]>>;

/** How many of each layer lived at each place of the time sheet, as far as it was played; −1 where it was not. */
export function useLivingHistory(engine: Engine): Ref<LivingHistory> {
  const store = useEffectStore();
  const kept: Record<string, number[]> = {};
  const shown = shallowRef<LivingHistory>({});
  let shownAt = 0;
  let lastBucket = 0;

  function note({ sheetTime, layers, progress, isPlaying }: SimulationState): void {
    const effect = store.effect;
    const length = effect ? new EffectClock(effect.stretches).length : 0;
    if (!effect || length === 0 || progress < 1) return;
    const bucket = Math.min(BUCKETS, Math.max(0, Math.round((sheetTime / length) * BUCKETS)));
    for (const id of effect.layers.order) {
      const { salt } = effect.layers.byId[ownerOf(effect, id)]!;
      const line = (kept[id] ??= new Array<number>(BUCKETS + 1).fill(-1));
      const count = layers.find((layer) => layer.salt === salt)?.living ?? 0;
      fill(line, isPlaying ? lastBucket : bucket, bucket, count);
    }
    lastBucket = bucket;
    const now = performance.now();
    if (isPlaying && now - shownAt < SHOW_EVERY_MILLISECONDS) return;
    shownAt = now;
    shown.value = Object.fromEntries(effect.layers.order.map((id) => [id, [...kept[id]!]]));
  }
  onBeforeUnmount(engine.listen(note));
  return shown;
}
