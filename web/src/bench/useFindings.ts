import { findings, type Finding, type Observed } from '@jinx/core/checks';
import { computed, onBeforeUnmount, ref, shallowRef, watch, type Ref } from 'vue';
import type { Engine } from '../engine/engine';
import type { SimulationState } from '../engine/protocol';
import { useEffectStore } from '../stores/effect';

/** Milliseconds after an edit until it is looked through. */
const AFTER = 120;
/** How far one step's milliseconds move a layer's mean, and from where on the mean is told. */
const SHARE = 0.03;
const TOLD_FROM = 8;

/** What is wrong with the effect on the bench, looked through anew once an edit has come to rest. */
export function useFindings(engine: Engine, budget: Ref<number>): Ref<readonly Finding[]> {
  const store = useEffectStore();
  const found = shallowRef<readonly Finding[]>([]);

  /** Layers by id, as the running simulation counts them. */
  const byLayer = <T>(state: SimulationState, of: (count: SimulationState['layers'][number]) => T) =>
    Object.fromEntries(
      Object.entries(store.effect?.layers.byId ?? {}).flatMap(([id, { salt }]) => {
        const count = state.layers.find((layer) => layer.salt === salt);
        return count ? [[id, of(count)]] : [];
      }),
    ) as Record<string, T>;
  const refused = computed(() => byLayer(engine.state, (count) => count.refused));
  const refusedText = computed(() => JSON.stringify(refused.value));

  /** Milliseconds of each layer's step, as a mean that no single slow step moves. */
  const means: Record<string, number> = {};
  const slowText = ref('{}');
  function note(state: SimulationState): void {
    if (!state.isPlaying || !state.isExact) return;
    for (const [id, ms] of Object.entries(byLayer(state, ({ milliseconds }) => milliseconds)))
      means[id] = (means[id] ?? ms) + (ms - (means[id] ?? ms)) * SHARE;
    const slow = Object.entries(means).filter(([, ms]) => ms > TOLD_FROM);
    slowText.value = JSON.stringify(Object.fromEntries(slow.map(([id, ms]) => [id, Math.round(ms)])));
  }
  onBeforeUnmount(engine.listen(note));

  let timer = 0;
  function look(): void {
    if (!store.effect) return;
    const observed: Observed = {
      refused: refused.value,
      isBudgetFull: engine.state.living >= budget.value,
      missing: engine.missing.value,
      budget: budget.value,
      milliseconds: JSON.parse(slowText.value) as Record<string, number>,
    };
    found.value = findings(store.effect, engine.rigs.value, observed);
  }
  watch(
    [() => store.effect, engine.rigs, engine.missing, refusedText, slowText, budget],
    () => {
      window.clearTimeout(timer);
      timer = window.setTimeout(look, AFTER);
    },
    { immediate: true },
  );
  onBeforeUnmount(() => window.clearTimeout(timer));
  return found;
}
