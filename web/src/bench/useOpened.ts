import type { Effect } from '@jinx/core/document';
import { DEFAULT_BUDGET, EffectClock } from '@jinx/core/simulation';
import { message } from 'ant-design-vue';
import { onBeforeUnmount, ref, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { api, ApiError, type ProjectDetail } from '../api';
import type { Engine } from '../engine/engine';
import { useEffectStore } from '../stores/effect';
import { useSavingStore } from '../stores/saving';
import { tell } from '../tell';
import { PICTURED_SHARE } from '../thumbnails/useThumbnails';

/** Opens an effect, and brings it and every edit of it to the engine. */
export function useOpened(id: string, engine: Engine, judged: (effect: Effect) => Effect) {
  const router = useRouter();
  const store = useEffectStore();
  const saving = useSavingStore();
  const project = shallowRef<ProjectDetail | null>(null);
  const isReady = ref(false);
  const budget = ref(DEFAULT_BUDGET);

  async function open(): Promise<void> {
    try {
      const told = await saving.open(id);
      project.value = await api.project(store.projectId);
      budget.value = project.value.livingBudget;
      isReady.value = true;
      await engine.edit(judged(store.effect!), budget.value);
      const { stretches } = store.effect!;
      if (!window.matchMedia('(prefers-reduced-motion: reduce)').matches) engine.playback.play();
      else engine.playback.seekSheet(stretches, new EffectClock(stretches).length * PICTURED_SHARE);
      if (told) void message.info(told, 6);
    } catch (error) {
      tell(error);
      if (error instanceof ApiError && error.status === 404) void router.replace('/');
    }
  }
  void open();

  function showNow(): void {
    if (isReady.value) void engine.edit(judged(store.previewed ?? store.effect!), budget.value).catch(tell);
  }
  const unheard = store.onTransition((transition) => {
    if (!isReady.value) return;
    const shown = judged(transition.after);
    void engine.edit(shown, budget.value, shown === transition.after ? transition : null).catch(tell);
  });
  watch(
    () => store.previewed,
    () => showNow(),
    { flush: 'post' },
  );
  watch(
    () => store.told,
    (refused) => refused && void message.info({ content: refused.sentence, key: 'refusal' }),
  );
  onBeforeUnmount(() => {
    unheard();
    void saving.save();
  });

  /** Another budget is another world: it is computed anew, and the old picture stays until then. */
  async function setBudget(value: number): Promise<void> {
    try {
      await api.setBudget(store.projectId, value);
      budget.value = value;
      await engine.edit(judged(store.effect!), value);
    } catch (error) {
      tell(error);
    }
  }
  return { project, isReady, budget, setBudget, showNow };
}
