import type { Effect } from '@jinx/core/document';
import { inject, provide, ref, shallowRef, type InjectionKey, type Ref, type ShallowRef } from 'vue';

/** How pictures of two effects are seen: only the one on the bench, both side by side, or one over the other. */
export type Pictures = 'one' | 'beside' | 'wipe';

/** What the effect on the bench is compared with. */
export interface Other {
  /** The choice it came from: an effect's id, or a state of this one. */
  readonly choice: Ref<string>;
  readonly effect: ShallowRef<Effect | null>;
  /** Its name as it is told. */
  readonly name: Ref<string>;
  readonly pictures: Ref<Pictures>;
  /** Where the wipe stands: the share of the picture that is the bench's own. */
  readonly share: Ref<number>;
}
const OTHER: InjectionKey<Other> = Symbol('other');

export function provideOther(): Other {
  const other: Other = {
    choice: ref(''),
    effect: shallowRef(null),
    name: ref(''),
    pictures: ref('one'),
    share: ref(0.5),
  };
  provide(OTHER, other);
  return other;
}
export const useOther = (): Other => inject(OTHER)!;
