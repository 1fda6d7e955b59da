import { diff, holderAt, type Declaration, type Effect, type HolderAddress, type Setting } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { changeSetting, settingBeside } from './changeSetting';

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

  /** The other chosen layers that have it, with what they have. */
  const beside = computed(() =>
    store.chosenIds.slice(1).flatMap((id) => {
      const setting = settingBeside(store.effect!, address.value, name(), id) as S | null;
      return setting ? [{ layer: store.effect!.layers.byId[id]!.name, setting }] : [];
    }),
  );
  /** Whether the chosen layers differ in what it begins with; how each shapes it is its own. */
  const isMixed = computed(() =>
    beside.value.some((other) => diff(other.setting.base, setting.value.base).length > 0),
  );

  /** Changes it in every chosen layer that has it; parts of the effect itself once. */
  const change = (
    label: string,
    recipe: (setting: S, layerId: string, draft: Effect) => void,
    gesture: string | null = null,
  ): void => changeSetting(store, address.value, name(), label, recipe, gesture);

  return { address, setting, declaration, beside, isMixed, change };
}
