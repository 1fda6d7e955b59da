import { diff, type Declaration, type Effect, type Setting } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../stores/effect';
import { holderBeside, holderIn, type Holder } from './holders';

/** A setting of the chosen layers, or of a part of them: what the first of them has, and how all are changed together. */
export function useSetting<S extends Setting, D extends Declaration>(
  name: () => string,
  of: () => string | undefined,
) {
  const store = useEffectStore();
  const holder = computed(() => holderIn(store.effect!, store.chosenId, of())!);
  const setting = computed(() => holder.value.settings[name()] as S);
  const declaration = computed(() => holder.value.table[name()] as D);

  const besideIn = (effect: Effect, layerId: string): Holder | null => {
    const found = holderBeside(effect, store.chosenId, layerId, of());
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
    const [part] = of()?.split('/') ?? [];
    const { effect } = store;
    const isOfEffect = part === 'surface' || part === 'front' || (part === 'force' && !holderIsOwn(effect!));
    if (isOfEffect)
      return store.change(
        label,
        (draft) => {
          const found = holderIn(draft, store.chosenId, of())?.settings[name()];
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
  const holderIsOwn = (effect: Effect) =>
    (of()?.split('/')[1] ?? '') in (effect.layers.byId[store.chosenId]?.forces.byId ?? {});

  return { setting, declaration, beside, isMixed, change };
}
