import { holderAt, layerOf, partBeside, type Effect, type HolderAddress, type Setting } from '@jinx/core/document';
import type { useEffectStore } from '../../stores/effect';

type Store = ReturnType<typeof useEffectStore>;

/** A setting of a part as another layer has it: of the part that answers to it there; null where it has none. */
export function settingBeside(effect: Effect, address: HolderAddress, name: string, layerId: string): Setting | null {
  const beside = partBeside(effect, address, layerId);
  return (beside && holderAt(effect, beside)?.settings[name]) ?? null;
}

/** Changes a setting in every chosen layer that has it; of a part of the effect itself once. */
export function changeSetting<S extends Setting>(
  store: Store,
  address: HolderAddress,
  name: string,
  label: string,
  recipe: (setting: S, layerId: string, draft: Effect) => void,
  gesture: string | null = null,
): void {
  if (layerOf(address) === null)
    return store.change(
      label,
      (draft) => {
        const found = holderAt(draft, address)?.settings[name];
        if (found) recipe(found as S, store.chosenId, draft);
      },
      gesture,
    );
  store.changeLayers(
    label,
    (_, layerId, draft) => {
      const found = settingBeside(draft, address, name, layerId);
      if (found) recipe(found as S, layerId, draft);
    },
    gesture,
  );
}
