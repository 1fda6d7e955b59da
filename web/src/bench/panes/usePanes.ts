import { useEventListener, useStorage } from '@vueuse/core';
import { ref } from 'vue';
import { useCommands, type Commands } from '../commands/registry';

/** Windows from this width on show the chapters in two columns. */
const WIDE = 1700;

/** How the bench is divided, kept in this browser: percent of the chapters and of what stands below the picture, and what is folded. */
export function usePanes(commands: Commands) {
  const chapters = useStorage('jinx pane chapters', window.innerWidth < WIDE ? 30 : 38.5);
  const below = useStorage('jinx pane below', 36.5);
  const areChaptersFolded = useStorage('jinx pane chapters folded', false);
  const isBelowFolded = useStorage('jinx pane below folded', false);
  /** Whether the picture has the whole window. */
  const isAlone = ref(false);
  useEventListener(window, 'keydown', (event) => {
    if (event.key === 'Escape' && !event.defaultPrevented) isAlone.value = false;
  });
  useCommands(
    {
      'pane.chapters': () => (areChaptersFolded.value = !areChaptersFolded.value),
      'pane.below': () => (isBelowFolded.value = !isBelowFolded.value),
      'picture.alone': () => (isAlone.value = !isAlone.value),
    },
    commands,
  );
  return { chapters, below, areChaptersFolded, isBelowFolded, isAlone };
}
