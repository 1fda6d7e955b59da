import type { HolderAddress } from '@jinx/core/document';
import { computed, type ComputedRef } from 'vue';
import { useEffectStore } from '../stores/effect';

/** A part that the chosen layer has once, by its address. */
export function useChosenPart(kind: 'layer' | 'channels' | 'drawn'): ComputedRef<HolderAddress> {
  const store = useEffectStore();
  return computed(() => ({ kind, layer: store.chosenId }));
}
