import { useNow } from '@vueuse/core';
import { computed } from 'vue';
import { useSavingStore } from '../stores/saving';

/** How long ago something was, as people say it. */
export function lasting(milliseconds: number): string {
  const minutes = Math.floor(milliseconds / 60_000);
  if (minutes < 1) return 'under a minute';
  if (minutes < 60) return `${minutes} min`;
  return `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
}

/** How the effect is kept, in words. */
export function useSavingWords() {
  const saving = useSavingStore();
  const now = useNow({ interval: 5000 });
  const isBad = computed(() => ['away', 'clash', 'refused'].includes(saving.state));
  const word = computed(() => {
    if (saving.state === 'saved') return 'Saved';
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
