import {
  diff,
  holderAt,
  layerOf,
  partBeside,
  type Declaration,
  type Effect,
  type Holder,
  type HolderAddress,
  type Setting,
} from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';

/** A setting of the chosen layers, or with `of` of a part of the first of them: what that has, and how all are changed together. */
export function useSetting<S extends Setting, D extends Declaration>(
  name: () => string,
  of: () => HolderAddress | undefined,
) {
  const store = useEffectStore();
  const address = computed((): HolderAddress => of() ?? { kind: 'layer', layer: store.chosenId });
  const holder = computed(() => holderAt(store.effect!, address.value)!);
  const setting = computed(() => holder.value.settings[name()] as S);
  const declaration = computed(() => holder.value.table[name()] as D);

  const besideIn = (effect: Effect, layerId: string): Holder | null => {
    const beside = partBeside(effect, address.value, layerId);
    const found = beside && holderAt(effect, beside);
    return found && name() in found.settings ? found : null;
  };
  /** The other chosen layers that have it, with what they have. */
  const beside = computed(() =>
    store.chosenIds.slice(1).flatMap((id) => {
      const found = besideIn(store.effect!, id);
      return found ? [{ layer: store.effect!.layers.byId[id]!.name, setting: found.settings[name()] as S }] : [];
    }),
  );
  /** Whether the chosen layers differ in what it begins with; how each shapes it is its own. */
  const isMixed = computed(() =>
    beside.value.some((other) => diff(other.setting.base, setting.value.base).length > 0),
  );

  /** Changes it in every chosen layer that has it; parts of the effect itself once. */
  function change(
    label: string,
    recipe: (setting: S, layerId: string, draft: Effect) => void,
    gesture: string | null = null,
  ): void {
    if (layerOf(address.value) === null)
      return store.change(
        label,
        (draft) => {
          const found = holderAt(draft, address.value)?.settings[name()];
          if (found) recipe(found as S, store.chosenId, draft);
        },
        gesture,
      );
    store.changeLayers(
      label,
      (_, layerId, draft) => {
        const found = besideIn(draft, layerId)?.settings[name()];
        if (found) recipe(found as S, layerId, draft);
      },
      gesture,
    );
  }

  return { address, setting, declaration, beside, isMixed, change };
}
