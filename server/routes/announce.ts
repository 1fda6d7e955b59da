import { remember, type Written } from '../effects/index.ts';
import type { House } from '../house.ts';

/** Keeps what was written at hand, and tells whoever has it open. To be called once it is kept. */
export function announce(house: Pick<House, 'live' | 'followers'>, written: Written): void {
  for (const [effectId, { head, revision, document }] of written) {
    remember(head, document);
    house.live.tellEdit(effectId, revision);
  }
  if ([...written.values()].some(({ followers }) => followers > 0)) house.followers.wake();
}
