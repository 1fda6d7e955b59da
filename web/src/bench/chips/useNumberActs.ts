import {
  listed,
  settingSchema,
  structuredCopy,
  type Effect,
  type NumberDeclaration,
  type NumberSetting,
} from '@jinx/core/document';
import { bringOut as bringOutOf, nameMeasure, QUANTITY_OF } from '@jinx/core/editing';
import { computed, type ComputedRef } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { copiedSetting } from '../values/copied';

/** A number as its chip knows it. */
interface Shown {
  readonly setting: ComputedRef<NumberSetting>;
  readonly declaration: ComputedRef<NumberDeclaration>;
  readonly name: ComputedRef<string>;
  readonly change: (label: string, recipe: (setting: NumberSetting, layerId: string, draft: Effect) => void) => void;
}

/** What a number's drawer offers beside its value: to copy and paste it, to be measured by a name, to be brought out. */
export function useNumberActs({ setting, declaration, name, change }: Shown, close: () => void) {
  const store = useEffectStore();

  function copy(): void {
    copiedSetting.value = {
      effect: store.id,
      name: name.value,
      unit: declaration.value.unit,
      setting: structuredCopy(setting.value),
    };
    close();
  }
  /** What was copied, where it may be put in here: a number of the same unit, within what this one allows. */
  const pastable = computed(() => {
    const copied = copiedSetting.value;
    if (copied?.effect !== store.id || copied.unit !== declaration.value.unit) return null;
    const fits = settingSchema({ ...declaration.value, name: name.value }).safeParse(copied.setting).success;
    return fits ? copied : null;
  });
  function paste(): void {
    const { setting: copied } = pastable.value!;
    change(`paste ${name.value}`, (target) => Object.assign(target, structuredCopy(copied)));
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
