import { holderAt, parseSettingAddress, type SettingAddress } from '@jinx/core/document';
import { useEventListener } from '@vueuse/core';
import { computed, shallowRef, type ComputedRef } from 'vue';
import { useEffectStore } from '../../../stores/effect';

/** The setting whose chip was used last, as long as it is there. */
export function useLastChip(): ComputedRef<SettingAddress | null> {
  const store = useEffectStore();
  const last = shallowRef<SettingAddress | null>(null);
  useEventListener(document, 'focusin', ({ target }) => {
    const chip = target instanceof Element ? target.closest<HTMLElement>('[data-address]') : null;
    const address = chip && parseSettingAddress(chip.dataset['address']!);
    if (address) last.value = address;
  });
  return computed(() => {
    const address = last.value;
    const holder = address && store.effect && holderAt(store.effect, address);
    return address && holder?.settings[address.setting] ? address : null;
  });
}
