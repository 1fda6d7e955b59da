import { listed, type Effect } from '@jinx/core/document';
import { FAR_VIEW, FIRST_VIEW, SIDE_VIEWS, type View } from '@jinx/player/scene';
import { useStorage } from '@vueuse/core';
import { computed, provide, watch, type InjectionKey, type Ref } from 'vue';
import type { AssetSummary } from '../../../api';
import { useEffectStore } from '../../../stores/effect';
import type { Shown } from '../../bench';
import { judgedIn, NO_JUDGING, type JudgingSet } from './judging';

export const JUDGING: InjectionKey<Ref<JudgingSet>> = Symbol('judging');

/** Cameras that every effect has, by their names. */
export const READY_CAMERAS: readonly { readonly name: string; readonly help: string; readonly view: View }[] = [
  { name: 'near', help: 'A figure whole', view: FIRST_VIEW },
  { name: 'game', help: 'Where a game sees it from', view: FAR_VIEW },
  ...SIDE_VIEWS.map(({ name, view }) => ({ name, help: `Level, from the ${name}`, view })),
];

interface Stage {
  look(view: View): void;
  seen(): View;
}

/**
 * The judging set: kept for the project in this browser, and in force while the picture stands alone. Returns what the engine
 * is to show of an effect. What it changes of camera and lens is as before once the bench is back.
 */
export function useJudging(
  isAlone: Readonly<Ref<boolean>>,
  assets: () => readonly AssetSummary[],
  shown: Pick<Shown, 'isRaw'>,
  stage: () => Stage | undefined,
) {
  const store = useEffectStore();
  const kept = useStorage<Record<string, JudgingSet>>('jinx judging', {});
  const set = computed({
    get: () => kept.value[store.projectId] ?? NO_JUDGING,
    set: (to) => (kept.value = { ...kept.value, [store.projectId]: to }),
  });
  provide(JUDGING, set);
  const judged = (effect: Effect): Effect => (isAlone.value ? judgedIn(effect, set.value, assets()) : effect);

  function viewOf(camera: string | null): View | undefined {
    const own = listed(store.effect!.stage.cameras).find(({ id }) => id === camera);
    return own?.item ?? READY_CAMERAS.find(({ name }) => name === camera)?.view;
  }
  let before: { readonly view: View; readonly isRaw: boolean } | null = null;
  watch(isAlone, (alone) => {
    const there = stage();
    if (!there) return;
    if (alone) {
      before = { view: there.seen(), isRaw: shown.isRaw.value };
      const view = viewOf(set.value.camera);
      if (view) there.look(view);
      if (set.value.isRaw) shown.isRaw.value = true;
    } else if (before) {
      if (set.value.camera !== null) there.look(before.view);
      shown.isRaw.value = before.isRaw;
      before = null;
    }
  });
  return { judged, judging: computed(() => (isAlone.value ? set.value : null)) };
}
