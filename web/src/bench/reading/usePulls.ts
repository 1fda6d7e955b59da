import { forcesOn, ownerOf } from '@jinx/core/document';
import type { Pull } from '@jinx/core/simulation';
import { onBeforeUnmount, watch } from 'vue';
import type { Engine } from '../../engine/engine';
import { answered } from '../../engine/calls';
import { useEffectStore } from '../../stores/effect';
import type { Probe } from './probe';

const QUIET_MILLISECONDS = 150;

/** Keeps `probe.pulls` what each force does to the particle under the glass; null while that is worked out, or it plays. */
export function usePulls(engine: Engine, probe: Probe): void {
  const store = useEffectStore();
  let timer = 0;
  let asked = 0;
  async function take(): Promise<void> {
    const mine = ++asked;
    const { layerId, key } = probe;
    if (key === null || !store.effect?.layers.byId[layerId]) return;
    const answer = await answered(engine.simulation.pulls(layerId, key));
    if (answer && mine === asked && answer.step === engine.state.step) probe.pulls = answer.pulls;
  }
  watch(
    [
      () => probe.key,
      () => probe.layerId,
      () => store.effect,
      () => engine.state.step,
      () => engine.state.isPlaying,
      () => engine.state.progress,
    ],
    () => {
      window.clearTimeout(timer);
      asked++;
      probe.pulls = null;
      if (!engine.state.isPlaying && engine.state.progress === 1)
        timer = window.setTimeout(() => void take(), QUIET_MILLISECONDS);
    },
    { immediate: true },
  );
  onBeforeUnmount(() => {
    window.clearTimeout(timer);
    probe.pulls = null;
  });
}

/** What acts on the particle under the glass: every force that is for it, with what it does, the strongest first. */
export function actingOn(
  effect: Parameters<typeof ownerOf>[0] & Parameters<typeof forcesOn>[0],
  layerId: string,
  pulls: readonly Pull[] | null,
) {
  const size = (way: readonly number[]) => Math.hypot(...way);
  return forcesOn(effect, ownerOf(effect, layerId))
    .map(({ id, item, isShared }) => {
      const pull = pulls?.find((each) => each.id === id && each.isShared === isShared) ?? null;
      return { id, kind: item.kind, muted: item.muted, isShared, pull };
    })
    .sort((a, b) => size(b.pull?.change ?? [0]) - size(a.pull?.change ?? [0]));
}
