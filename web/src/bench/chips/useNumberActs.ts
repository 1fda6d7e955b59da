import {
  listed,
  type Effect,
  type NumberDeclaration,
  type NumberSetting,
  type SettingAddress,
} from '@jinx/core/document';
import { bringOut as bringOutOf, nameMeasure, QUANTITY_OF } from '@jinx/core/editing';
import { computed, type ComputedRef } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { useSettingClip } from '../values/useSettingClip';

/** A number as its chip knows it. */
interface Shown {
  readonly address: ComputedRef<SettingAddress>;
  readonly setting: ComputedRef<NumberSetting>;
  readonly declaration: ComputedRef<NumberDeclaration>;
  readonly name: ComputedRef<string>;
  readonly change: (label: string, recipe: (setting: NumberSetting, layerId: string, draft: Effect) => void) => void;
}

/** What a number's drawer offers beside its value: to copy and paste it, to be measured by a name, to be brought out. */
export function useNumberActs({ address, setting, declaration, name, change }: Shown, close: () => void) {
  const store = useEffectStore();

  const { copySetting, pastable: pastableAt, pasteAt } = useSettingClip();
  function copy(): void {
    copySetting(address.value, name.value);
    close();
  }
  /** What was copied, where it may be put in here: a number of the same unit, within what this one allows. */
  const pastable = computed(() => pastableAt(address.value));
  function paste(): void {
    pasteAt(address.value, name.value, pastable.value!);
    close();
  }

  /** The name of something made of this number of a layer. */
  const named = (draft: Effect, layerId: string) =>
    [draft.layers.byId[layerId]?.name, name.value].filter(Boolean).join(' ').slice(0, 80);
  /** Measures of the effect that this number may be, and one that is made of what it is. */
  const measures = computed(() => {
    const { bases, unit } = declaration.value;
    const quantity = bases.includes('measure') ? QUANTITY_OF[unit] : undefined;
    if (!quantity) return [];
    return [
      ...listed(store.effect!.measures)
        .filter(({ item }) => item.quantity === quantity)
        .map(({ id, item }) => ({ value: id, text: item.name })),
      ...(setting.value.base.kind === 'fixed' ? [{ value: '', text: 'a new measure, as it is' }] : []),
    ];
  });
  function measure(id: string): void {
    const made = store.newId();
    change(`measure ${name.value}`, (target, layerId, draft) => {
      if (id === '' && !draft.measures.byId[made])
        nameMeasure(draft, target, declaration.value, made, named(draft, layerId));
      else target.base = { kind: 'measure', measure: id || made };
    });
    close();
  }

  const canBeBroughtOut = computed(
    () =>
      declaration.value.reads.includes('dial') &&
      !listed(setting.value.shapers).some(({ item }) => item.reads.kind === 'dial'),
  );
  function bringOut(): void {
    const dial = store.newId();
    change(`bring out ${name.value}`, (target, layerId, draft) =>
      bringOutOf(draft, target, declaration.value, { dial, shaper: store.newId() }, named(draft, layerId)),
    );
    close();
  }
  return { copy, pastable, paste, measures, measure, canBeBroughtOut, bringOut };
}
