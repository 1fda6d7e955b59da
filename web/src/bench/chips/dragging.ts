import type { Collection, Id } from '@jinx/core/document';

/** How long what is dragged over takes to make room; nothing slides for those who ask for less motion. */
export const DRAG_MILLISECONDS = window.matchMedia('(prefers-reduced-motion: reduce)').matches ? 0 : 120;

/** A collection in another order. */
export const inOrder = <T>({ byId }: Collection<T>, order: readonly Id[]): Collection<T> => ({
  order: [...order],
  byId,
});
