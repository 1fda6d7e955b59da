import { findings, SLOW_STEP, type Observed, type StageRigs } from '@jinx/core/checks';
import { message } from 'ant-design-vue';
import equal from 'fast-deep-equal';
import { onBeforeUnmount, shallowRef, watch, type Ref } from 'vue';
import type { CheckAnswer, CheckOrder, ToldFinding } from '../engine/checksWorker';
import type { Engine } from '../engine/engine';
import type { SimulationState } from '@jinx/player/simulation';
import { Restarts } from '../engine/restarts';
import { reasonOf } from '../engine/threads';
import { useEffectStore } from '../stores/effect';
import { keptComputed } from './values/keptComputed';
import { StepTimes } from './values/stepTimes';

/** Milliseconds after an edit until it is looked through. */
const AFTER = 400;

/** What is wrong with the effect on the bench, looked through anew, beside the page, once an edit has come to rest; and what mends it. */
export function useFindings(
  engine: Engine,
  budget: Ref<number>,
  /** Whether the page is made: before, checks would take its core, and steps take long, which says nothing of the effect. */
  isFurnished: Readonly<Ref<boolean>>,
): { found: Ref<readonly ToldFinding[]>; mend: (finding: ToldFinding) => void } {
  const store = useEffectStore();
  const found = shallowRef<readonly ToldFinding[]>([]);

  /** Layers by id, as the running simulation counts them. */
  const byLayer = <T>(state: SimulationState, of: (count: SimulationState['layers'][number]) => T) =>
    Object.fromEntries(
      Object.entries(store.effect?.layers.byId ?? {}).flatMap(([id, { salt }]) => {
        const count = state.layers.find((layer) => layer.salt === salt);
        return count ? [[id, of(count)]] : [];
      }),
    ) as Record<string, T>;
  const refused = keptComputed(() => byLayer(engine.state, (count) => count.refused));
  const lost = keptComputed(() => byLayer(engine.state, (count) => count.lost));

  const times = new StepTimes(SLOW_STEP);
  const slow = shallowRef<Record<string, number>>({});
  function note(state: SimulationState): void {
    if (!state.isPlaying || !state.isExact || !isFurnished.value) return;
    for (const [id, ms] of Object.entries(byLayer(state, ({ milliseconds }) => milliseconds))) times.note(id, ms);
    const now = times.slow();
    if (!equal(now, slow.value)) slow.value = now;
  }
  onBeforeUnmount(engine.playback.listen(note));

  const observed = (): Observed => ({
    refused: refused.value,
    lost: lost.value,
    isBudgetFull: engine.state.living >= budget.value,
    missing: engine.assets.missing.value,
    budget: budget.value,
    milliseconds: slow.value,
  });
  let asked = 0;
  let sentRigs: StageRigs | null = null;
  const restarts = new Restarts();
  let worker: Worker | null = null;
  function begin(): Worker {
    const made = new Worker(new URL('../engine/checksWorker.ts', import.meta.url), { type: 'module' });
    made.onmessage = ({ data }: MessageEvent<CheckAnswer>) => {
      // What was asked of an older state comes too late.
      if (data.id === asked) found.value = data.found;
    };
    made.onerror = (event) => {
      made.terminate();
      sentRigs = null;
      found.value = [];
      if (restarts.mayRestart()) worker = begin();
      void message.error(`This effect could not be looked through for faults: ${reasonOf(event)}.`, 6);
    };
    return made;
  }
  let timer = 0;
  function look(): void {
    if (!store.effect || !isFurnished.value) return;
    worker ??= begin();
    const rigs = engine.rigs.value === sentRigs ? null : engine.rigs.value;
    sentRigs = engine.rigs.value;
    worker.postMessage({ id: ++asked, effect: store.effect, observed: observed(), rigs } satisfies CheckOrder);
  }
  watch(
    [() => store.effect, isFurnished, engine.rigs, engine.assets.missing, refused, lost, slow, budget],
    () => {
      window.clearTimeout(timer);
      timer = window.setTimeout(look, AFTER);
    },
    { immediate: true },
  );
  onBeforeUnmount(() => {
    window.clearTimeout(timer);
    worker?.terminate();
  });

  /** Mends what was found, as the effect is now; what is no longer so is left alone. */
  function mend({ id }: ToldFinding): void {
    const now = findings(store.effect!, engine.rigs.value, observed()).find((finding) => finding.id === id);
    if (now?.mend) store.change(now.mend.label.toLowerCase(), now.mend.apply);
  }
  return { found, mend };
}
