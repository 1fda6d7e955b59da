import type { ChapterName } from '@jinx/core/editing';
import { useEventListener } from '@vueuse/core';
import { nextTick, ref, type Ref } from 'vue';

/** How far below the page's upper edge a chapter may begin to be the one that is read, in pixels. */
const READ_WITHIN = 48;
const LIT_MILLISECONDS = 1600;

/** The names of the chapters as anchors of one page: which is read, how to go to one, and to one chip of it. */
export function useAnchors(page: Ref<HTMLElement | undefined>) {
  const current = ref<ChapterName>('source');
  const sections = () => [...(page.value?.querySelectorAll<HTMLElement>('[data-chapter]') ?? [])];
  const namesOf = (section: HTMLElement) => section.dataset['chapter']!.split(' ') as ChapterName[];
  const sectionOf = (chapter: ChapterName) => sections().find((section) => namesOf(section).includes(chapter));
  /** How far below the page's upper edge something stands. */
  const topOf = (element: HTMLElement) =>
    element.getBoundingClientRect().top - page.value!.getBoundingClientRect().top;

  /** What was gone to by hand, though the page's end keeps it from the upper edge. */
  let chosen: ChapterName | null = null;
  function read(): void {
    if (!page.value) return;
    if (chosen) return void ([current.value, chosen] = [chosen, null]);
    const begun = sections().filter((section) => topOf(section) < READ_WITHIN);
    current.value = namesOf(begun[begun.length - 1] ?? sections()[0]!)[0]!;
  }
  useEventListener(page, 'scroll', read, { passive: true });

  const chipIn = (section: HTMLElement, chip: string | null, label: string | null): HTMLElement | null =>
    chip !== null
      ? section.querySelector(`[data-address="${CSS.escape(chip)}"]`)
      : label !== null
        ? section.querySelector(`[aria-label^="${CSS.escape(label)}"]`)
        : null;

  /** Scrolls to a chapter; to a chip of it, by its address or by what it is called, which is lit and has the focus. */
  function goTo(chapter: ChapterName, chip: string | null = null, label: string | null = null): void {
    const section = sectionOf(chapter);
    if (!section) return;
    current.value = chapter;
    const target = chipIn(section, chip, label);
    const before = page.value!.scrollTop;
    if (target) target.scrollIntoView({ block: 'center' });
    else page.value!.scrollTop += topOf(section) - 4;
    if (page.value!.scrollTop !== before) chosen = chapter;
    if (!target) return;
    const control = target.matches('button, input') ? target : target.querySelector<HTMLElement>('button, input');
    control?.focus({ preventScroll: true });
    target.classList.add('lit');
    window.setTimeout(() => target.classList.remove('lit'), LIT_MILLISECONDS);
  }
  /** Keeps the chapter that is read where it stands, while another layer takes the page. */
  async function keepPlace(): Promise<void> {
    const section = sectionOf(current.value);
    const [chapter, top] = [current.value, section && topOf(section)];
    await nextTick();
    const now = sectionOf(chapter);
    if (now && top !== undefined) page.value!.scrollTop += topOf(now) - top;
  }
  return { current, goTo, keepPlace };
}
