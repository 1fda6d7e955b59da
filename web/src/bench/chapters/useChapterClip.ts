import { CHAPTERS, pasteChapter, type ChapterName, type Pasted } from '@jinx/core/editing';
import { message } from 'ant-design-vue';
import { computed } from 'vue';
import { random32, useEffectStore } from '../../stores/effect';
import { copiedOf, copiedPart, type CopiedPart } from '../values/copied';
import { toldOfReferences } from '../values/toldOfReferences';

export { CHAPTERS };
export const chapterTitle = (chapter: ChapterName): string => chapter[0]!.toUpperCase() + chapter.slice(1);

/** Copies a whole chapter of the chosen layer, and gives the chosen layers the one that was copied. */
export function useChapterClip() {
  const store = useEffectStore();
  /** The chapter that was copied, and what giving it is called. */
  const pastable = computed(() => {
    const copied = copiedOf('chapter');
    const whom = store.chosenIds.length > 1 ? `these ${store.chosenIds.length} layers` : 'this layer';
    return copied && { copied, text: `Give ${whom} ${chapterTitle(copied.part.chapter)} of ${copied.name}` };
  });
  function copy(chapter: ChapterName): void {
    const part = { kind: 'chapter', chapter } as const;
    copiedPart.value = { layers: [store.chosenId], effect: store.effect!, part, name: store.chosen!.name };
    void message.success({
      content: `${chapterTitle(chapter)} of ${store.chosen!.name} copied. Choose other layers and paste it there.`,
      key: 'chapter',
    });
  }
  function paste(copied: CopiedPart<'chapter'>): void {
    const { chapter } = copied.part;
    const to = store.openIds(store.effect!);
    let pasted: Pasted | null = null;
    store.change(`give ${chapterTitle(chapter)} of ${copied.name}`, (draft) => {
      pasted = pasteChapter(draft, copied, chapter, to, random32);
    });
    if (!pasted) return;
    const told = `${chapterTitle(chapter)} of ${copied.name} pasted. ${toldOfReferences(pasted)}`;
    void message.success({ content: told.trim(), key: 'chapter' }, 6);
  }
  return { copy, paste, pastable };
}
