import type { Collection, Id } from '@jinx/core/document';
import { wantsLessMotion } from '../../motion';

/** How long what is dragged over takes to make room. */
export const dragMilliseconds = (): number => (wantsLessMotion() ? 0 : 120);

/** A collection in another order. */
export const inOrder = <T>({ byId }: Collection<T>, order: readonly Id[]): Collection<T> => ({
  order: [...order],
  byId,
});
