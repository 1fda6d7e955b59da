import { shallowRef } from 'vue';
import type { Target } from '../bench/box/target';
import { openGuide } from './useGuide';

/** The guide's pages and headings, for the box; nothing until they are fetched. */
export const guideTargets = shallowRef<readonly Target[]>([]);

/** Fetches them, once. */
export async function fetchGuideTargets(): Promise<void> {
  if (guideTargets.value.length > 0) return;
  const { headingsOf, PAGES } = await import('./pages');
  guideTargets.value = PAGES.flatMap((page): Target[] => [
    {
      id: `guide ${page.id}`,
      text: page.title,
      otherWords: [`help ${page.title}`, `guide ${page.title}`, `docs ${page.title}`, `manual ${page.title}`],
      detail: 'a page of the guide',
      run: () => openGuide(page.id),
    },
    ...headingsOf(page).map(({ anchor, text }): Target => ({
      id: `guide ${page.id}#${anchor}`,
      text,
      otherWords: [`help ${text}`],
      detail: `in the guide: ${page.title}`,
      run: () => openGuide(`${page.id}#${anchor}`),
    })),
  ]);
}
