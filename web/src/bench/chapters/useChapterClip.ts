import { pasteChapter, type ChapterName, type Pasted } from '@jinx/core/editing';
import { message } from 'ant-design-vue';
import { computed } from 'vue';
import { random32, useEffectStore } from '../../stores/effect';
import { toldOfReferences } from '../rulers/useClipboard';
import { copiedChapter } from '../values/copied';

export const CHAPTERS = ['source', 'births', 'motion', 'life', 'appearance', 'links'] as const;
export const chapterTitle = (chapter: ChapterName): string => chapter[0]!.toUpperCase() + chapter.slice(1);

/** Copies a whole chapter of the chosen layer, and gives the chosen layers the one that was copied. */
export function useChapterClip() {
  const store = useEffectStore();
  /** The chapter that was copied, and what giving it is called. */
  const pastable = computed(() => {
    const copied = copiedChapter.value;
    const whom = store.chosenIds.length > 1 ? `these ${store.chosenIds.length} layers` : 'this layer';
    return copied && { ...copied, text: `Give ${whom} ${chapterTitle(copied.chapter)} of ${copied.layer}` };
  });
  function copy(chapter: ChapterName): void {
    const clip = { layers: [store.chosenId], effect: store.effect! };
    copiedChapter.value = { chapter, layer: store.chosen!.name, clip };
    void message.success({
      content: `${chapterTitle(chapter)} of ${store.chosen!.name} copied. Choose other layers and paste it there.`,
      key: 'chapter',
    });
  }
  function paste(): void {
    const copied = copiedChapter.value!;
    const to = store.openIds(store.effect!);
    let pasted: Pasted | null = null;
    store.change(`give ${chapterTitle(copied.chapter)} of ${copied.layer}`, (draft) => {
      pasted = pasteChapter(draft, copied.clip, copied.chapter, to, random32);
    });
    const told = pasted && toldOfReferences(pasted);
    if (told) void message.info(told, 8);
  }
  return { copy, paste, pastable };
}
