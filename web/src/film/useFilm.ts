import type { Effect } from '@jinx/core/document';
import { filmProblems, type FilmSettings } from '@jinx/core/formats';
import type { FilmProgress } from '@jinx/player/film';
import { message } from 'ant-design-vue';
import { onBeforeUnmount, ref, shallowRef, watch, type Ref } from 'vue';
import { download } from '../parcels/download';
import { api } from '../api';
import { FilmClient, filmSource } from './filmClient';

/** Points of the longer side of a preview, at most. */
const PREVIEW_SIDE = 480;
/** Milliseconds after a change until it is previewed. */
const AFTER = 120;

/** Previews and takes pictures of an effect. */
export function useFilm(
  projectId: string,
  effect: Readonly<Ref<Effect | null>>,
  settings: Readonly<Ref<FilmSettings | null>>,
) {
  const picture = shallowRef<ImageBitmap | null>(null);
  const problem = ref('');
  const progress = shallowRef<FilmProgress | null>(null);
  const isReady = ref(false);
  /** Where along what would be taken the preview is, 0 to 1. */
  const at = ref(0.4);
  const client = new FilmClient(
    (bitmap) => {
      picture.value?.close();
      [picture.value, problem.value] = [bitmap, ''];
    },
    (sentence) => (problem.value = sentence),
  );
  onBeforeUnmount(() => {
    client.close();
    picture.value?.close();
  });

  watch(
    effect,
    async (wanted) => {
      if (!wanted) return;
      isReady.value = false;
      try {
        const source = await filmSource(wanted, await api.tone(projectId), (hash) => api.asset(hash));
        if (wanted !== effect.value) return;
        client.setSource(source);
        isReady.value = true;
      } catch (error) {
        problem.value = (error as Error).message;
      }
    },
    { immediate: true },
  );
  let timer = 0;
  watch(
    [settings, at, isReady, progress],
    () => {
      window.clearTimeout(timer);
      const wanted = settings.value;
      if (!wanted || !isReady.value || progress.value || filmProblems(wanted).length > 0) return;
      timer = window.setTimeout(() => client.preview(wanted, at.value, PREVIEW_SIDE), AFTER);
    },
    { deep: true },
  );
  onBeforeUnmount(() => window.clearTimeout(timer));

  /** Takes all pictures, and gives the file to the browser's downloads. Returns its name; null where it was cancelled or refused. */
  async function take(): Promise<string | null> {
    const { name } = effect.value!;
    progress.value = { done: 0, of: 1, secondsLeft: null, bytes: 0 };
    try {
      const taken = await client.take(settings.value!, name, (told) => (progress.value = told));
      if (taken) download(taken.file, taken.name);
      return taken && taken.name;
    } catch (error) {
      void message.error((error as Error).message, 10);
      return null;
    } finally {
      progress.value = null;
    }
  }
  return { picture, problem, progress, isReady, at, take, cancel: () => client.cancel() };
}
