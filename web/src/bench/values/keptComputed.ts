import equal from 'fast-deep-equal';
import { computed, type ComputedRef } from 'vue';

/**
 * A computed value that stays the same object for as long as it says the same: what is drawn of it is not drawn anew by
 * each edit of the effect. For small plain values.
 */
export const keptComputed = <T>(compute: () => T): ComputedRef<T> =>
  computed<T>((before) => {
    const now = compute();
    return before !== undefined && equal(before, now) ? before : now;
  });
