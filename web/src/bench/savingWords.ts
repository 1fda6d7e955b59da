import { useNow } from '@vueuse/core';
import { computed } from 'vue';
import type { Following } from '../api';
import { useSavingStore } from '../stores/saving';

/** How long ago something was, as people say it. */
export function lasting(milliseconds: number): string {
  const minutes = Math.floor(milliseconds / 60_000);
  if (minutes < 1) return 'under a minute';
  if (minutes < 60) return `${minutes} min`;
  return `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
}

/** How far the effects that follow have come, behind "Saved". */
export function followWords({ waiting, failed }: Following): string {
  const [first] = failed;
  if (waiting > 0) return waiting === 1 ? '; 1 effect follows' : `; ${waiting} effects follow`;
  if (!first) return '';
  return failed.length === 1
    ? `; ${first.name} could not follow: ${first.sentence}`
    : `; ${failed.length} effects could not follow, ${first.name} among them: ${first.sentence}`;
}

/** How the effect is kept, in words. */
export function useSavingWords() {
  const saving = useSavingStore();
  const now = useNow({ interval: 5000 });
  const isBad = computed(
    () => ['away', 'clash', 'refused'].includes(saving.state) || saving.following.failed.length > 0,
  );
  const word = computed(() => {
    if (saving.state === 'saved') return `Saved${followWords(saving.following)}`;
    if (!saving.isKeptHere) return 'Not saved, and this browser keeps nothing: leave the page open';
    if (saving.state === 'away') {
      const since = Math.max(0, now.value.getTime() - (saving.unsavedSince ?? now.value.getTime()));
      return `Kept in this browser for ${lasting(since)}, until the server is back`;
    }
    if (saving.state === 'clash') return 'Kept in this browser: choose what to keep';
    if (saving.state === 'refused') return `Not saved: ${saving.sentence}`;
    return saving.state === 'saving' ? 'Saving…' : 'About to be saved';
  });
  return { word, isBad };
}
