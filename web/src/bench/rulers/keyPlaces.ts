import type { KeyPlace } from '@jinx/core/document';

/** Numbers as the document keeps them: a ten-thousandth is finer than any hand. */
export const tidy = (value: number): number => Number(value.toFixed(4));

/** The key place, held by its anchor, that stands at a share 0..1 of a life of `life` seconds. */
export function placed(anchor: KeyPlace['anchor'], share: number, life: number): KeyPlace {
  const value = anchor === 'share' ? share : (anchor === 'afterBirth' ? share : 1 - share) * life;
  return { anchor, value: tidy(value) };
}
