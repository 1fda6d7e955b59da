import { whyUnseen } from '@jinx/core/checks';
import { ownerOf, type Change, type Id } from '@jinx/core/document';
import { inject, onBeforeUnmount, ref, watch, type Ref } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';

/** A change is looked at once its picture is there. */
const AFTER_MILLISECONDS = 500;

/** Why the last change cannot be seen in the picture of this instant; null where it can. */
export function useUnseen(): Readonly<Ref<string | null>> {
  const store = useEffectStore();
  const engine = inject(ENGINE)!;
  const why = ref<string | null>(null);
  let timer = 0;
  let changes: readonly Change[] = [];

  function livingOf(layer: Id): number | null {
    const owner = store.effect!.layers.byId[ownerOf(store.effect!, layer)];
    return engine.state.layers.find(({ salt }) => salt === owner?.salt)?.living ?? null;
  }
  function look(): void {
    why.value = store.effect && changes.length > 0 ? whyUnseen(store.effect, changes, livingOf) : null;
  }
  onBeforeUnmount(
    store.onTransition((transition) => {
      changes = transition.changes;
      why.value = null;
      window.clearTimeout(timer);
      timer = window.setTimeout(look, AFTER_MILLISECONDS);
    }),
  );
  onBeforeUnmount(() => window.clearTimeout(timer));
  // Elsewhere in time it may be seen, and of another layer it says nothing.
  watch([() => engine.state.step, () => engine.state.isPlaying], () => why.value && look());
  watch(
    () => store.chosenId,
    () => {
      changes = [];
      why.value = null;
    },
  );
  return why;
}
