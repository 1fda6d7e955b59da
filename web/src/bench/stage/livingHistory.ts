import { ownerOf } from '@jinx/core/document';
import { EffectClock } from '@jinx/core/simulation';
import { onBeforeUnmount, shallowRef, type Ref } from 'vue';
import type { Engine } from '../../engine/engine';
import type { LayerCount, SimulationState } from '@jinx/player/simulation';
import { useEffectStore } from '../../stores/effect';
import { fill } from '../rulers/livingLine';

const BUCKETS = 60;

/** What is kept of each layer: how many live, births a second, births refused so far, milliseconds of its step. */
export const KEPT = ['living', 'born', 'refused', 'milliseconds'] as const;
export type Kept = (typeof KEPT)[number];
/** A line of each layer along the time sheet, by its id; −1 where it was not played. */
export type Lines = Readonly<Record<string, readonly number[]>>;
export type History = Readonly<Record<Kept, Lines>>;

const NOTHING: History = { living: {}, born: {}, refused: {}, milliseconds: {} };

/** How each layer fared at each place of the time sheet, as far as it was played. */
export function useHistory(engine: Engine): Ref<History> {
  const store = useEffectStore();
  const kept: Record<Kept, Record<string, number[]>> = { living: {}, born: {}, refused: {}, milliseconds: {} };
  const shown = shallowRef<History>(NOTHING);
  let lastBucket = 0;
  let lastStep = -1;
  const bornBefore = new Map<string, number>();

  /** Births a second since the step that was last told of; −1 after a jump. */
  function birthsASecond(id: string, { born }: LayerCount, step: number): number {
    const before = bornBefore.get(id);
    bornBefore.set(id, born);
    const steps = step - lastStep;
    return before === undefined || steps <= 0 || steps > BUCKETS || born < before
      ? -1
      : ((born - before) * 60) / steps;
  }

  function note({ sheetTime, layers, progress, isPlaying, step }: SimulationState): void {
    const effect = store.effect;
    const length = effect ? new EffectClock(effect.stretches).length : 0;
    // Before the first step nothing was played.
    if (!effect || length === 0 || progress < 1 || step === 0) return;
    const bucket = Math.min(BUCKETS, Math.max(0, Math.round((sheetTime / length) * BUCKETS)));
    for (const id of effect.layers.order) {
      const { salt } = effect.layers.byId[ownerOf(effect, id)]!;
      const count = layers.find((layer) => layer.salt === salt);
      const isOwn = salt === effect.layers.byId[id]!.salt;
      for (const what of KEPT) kept[what][id] ??= new Array<number>(BUCKETS + 1).fill(-1);
      // A layer that the simulation does not know yet was not played.
      if (!count) continue;
      const now: Record<Kept, number> = {
        living: count.living,
        born: isOwn ? birthsASecond(id, count, step) : 0,
        refused: isOwn ? count.refused : 0,
        milliseconds: isOwn ? count.milliseconds : 0,
      };
      for (const what of KEPT) {
        const line = kept[what][id]!;
        if (now[what] >= 0) fill(line, isPlaying ? lastBucket : bucket, bucket, now[what]);
      }
    }
    [lastBucket, lastStep] = [bucket, step];
    // The lines are drawn anew with the counts, so that the page is painted once for both.
    if (engine.state.layers !== layers) return;
    const linesOf = (what: Kept) => Object.fromEntries(effect.layers.order.map((id) => [id, [...kept[what][id]!]]));
    shown.value = Object.fromEntries(KEPT.map((what) => [what, linesOf(what)])) as unknown as History;
  }
  onBeforeUnmount(engine.playback.listen(note));
  return shown;
}
