import { shallowRef } from 'vue';

/** Where the guide is open: a page, and a place on it; null while it is closed. */
export interface GuidePlace {
  readonly page: string;
  readonly anchor: string;
}
export const guide = shallowRef<GuidePlace | null>(null);

/** Opens the guide at an address such as "findings#faint". */
export function openGuide(address: string): void {
  const [page = '', anchor = ''] = address.split('#');
  guide.value = { page, anchor };
}
export const closeGuide = (): void => void (guide.value = null);
