import { useEventListener, useStorage } from '@vueuse/core';
import { onBeforeUnmount, ref, type Ref } from 'vue';
import { useEffectStore } from '../../stores/effect';

/** Whether a number, a key or a handle is being pulled: the pointer is down and what it does goes into the document. */
export function usePulled(): Readonly<Ref<boolean>> {
  const store = useEffectStore();
  const isPulled = ref(false);
  let isDown = false;
  useEventListener(window, 'pointerdown', () => (isDown = true), { capture: true });
  useEventListener(window, ['pointerup', 'pointercancel', 'blur'], () => (isDown = isPulled.value = false), {
    capture: true,
  });
  onBeforeUnmount(store.onTransition(({ gesture }) => isDown && gesture !== null && (isPulled.value = true)));
  return isPulled;
}

/** Whether the other layers are dimmed while something is pulled: a wish of this browser. */
export const useDimsOthers = (): Ref<boolean> => useStorage('jinx dim others while pulling', true);
