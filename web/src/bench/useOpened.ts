import type { Effect } from '@jinx/core/document';
import { EffectClock } from '@jinx/core/simulation';
import { message } from 'ant-design-vue';
import { storeToRefs } from 'pinia';
import { onBeforeUnmount, ref, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { api, ApiError, type ProjectDetail } from '../api';
import type { Engine } from '../engine/engine';
import { useEffectStore } from '../stores/effect';
import { useSavingStore } from '../stores/saving';
import { tellMade } from '../made';
import { wantsLessMotion } from '../motion';
import { tell, tellNoPanels } from '../tell';
import { loadPanels } from './late';
import { PICTURED_SHARE } from '../thumbnails/pictured';

/** Parts of the bench beside its stage, in the order in which they are made. */
const PARTS = ['rulers', 'chapters', 'rail'] as const;
type Part = (typeof PARTS)[number];
/** They come even where there is no picture after so long. */
const LATEST_MILLISECONDS = 2500;
/** The page waits so long for what its effect shows, which it shows without it then. */
const ASSETS_MILLISECONDS = 300;
const after = (milliseconds: number) => new Promise<void>((later) => setTimeout(later, milliseconds));

/** Opens an effect, and brings it and every edit of it to the engine. */
export function useOpened(id: string, engine: Engine, judged: (effect: Effect) => Effect) {
  const router = useRouter();
  const store = useEffectStore();
  const saving = useSavingStore();
  const project = shallowRef<ProjectDetail | null>(null);
  /** Whether the engine has been told of it: from then on it hears of every edit. */
  let isTold = false;
  const isReady = ref(false);
  /** What of the bench is there beside the stage. */
  const parts = shallowRef<readonly Part[]>([]);
  /** Whether all of them are. */
  const isFurnished = ref(false);
  const { livingBudget: budget } = storeToRefs(store);

  async function loadProject(): Promise<void> {
    try {
      project.value = await api.project(store.projectId);
    } catch (error) {
      tell(error);
    }
  }
  /** The first picture has both cores for itself: playing and all else wait for it. */
  const pictured = () => Promise.race([engine.pictured, after(LATEST_MILLISECONDS)]);
  /** The panels come one after the other: the page answers in between. */
  async function furnish(): Promise<void> {
    await pictured();
    try {
      await loadPanels();
    } catch {
      return tellNoPanels();
    }
    for (const part of PARTS) {
      parts.value = [...parts.value, part];
      await after(0);
    }
    isFurnished.value = true;
    tellMade();
  }
  async function open(): Promise<void> {
    try {
      const told = await saving.open(id);
      const shown = engine.edit(judged(store.effect!), budget.value);
      isTold = true;
      // To make the page takes as long as to compute and to draw what is on it: they go on side by side.
      await Promise.race([shown.catch(() => undefined), after(ASSETS_MILLISECONDS)]);
      isReady.value = true;
      void loadProject();
      void furnish();
      await shown;
      await pictured();
      const { stretches } = store.effect!;
      if (!wantsLessMotion()) engine.playback.play();
      else engine.playback.seekSheet(stretches, new EffectClock(stretches).length * PICTURED_SHARE);
      if (told) void message.info(told, 6);
    } catch (error) {
      tell(error);
      if (error instanceof ApiError && error.status === 404) void router.replace('/');
    }
  }
  void open();

  function showNow(): void {
    if (isTold) void engine.edit(judged(store.previewed ?? store.effect!), budget.value).catch(tell);
  }
  const unheard = store.onTransition((transition) => {
    if (!isTold) return;
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
  return { project, isReady, parts, isFurnished, budget, setBudget, showNow };
}
