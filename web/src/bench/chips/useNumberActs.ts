import {
  type Effect,
  GIVEN,
  type Given,
  listed,
  nameOfPart,
  type NumberDeclaration,
  type NumberSetting,
  type SettingAddress,
  withItem,
} from '@jinx/core/document';
import { bringOut as bringOutOf, nameMeasure, QUANTITY_OF } from '@jinx/core/editing';
import { message } from 'ant-design-vue';
import { computed, type ComputedRef } from 'vue';
import { useEffectStore } from '../../stores/effect';
import {
  ageShaper,
  newShaper,
  readsOffered,
  readyCurveOf,
  READY_SHAPES,
  setAgeCurve,
  suitingShape,
} from '../values/shapers';
import { GIVEN_HELP, GIVEN_WORDS } from '../entry/format';
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
export function useNumberActs({ address, setting, declaration, name, change }: Shown, ended: () => void) {
  const store = useEffectStore();
  /** The drawer stays while something is only pointed at. */
  const close = () => void (store.isTrying() || ended());

  /** What may shape it, each under a value to choose it by: age once, anything else as often as wanted. */
  const offered = computed(() =>
    readsOffered(declaration.value.reads, store.effect!).filter(
      ({ reads }) => reads.kind !== 'age' || !ageShaper(setting.value),
    ),
  );
  /** Shapes it as suits it, says so, and by age goes on with it on the life sheet. */
  function shape(value: string): void {
    const { reads, text } = offered.value.find((offer) => offer.value === value)!;
    const part = address.value.kind === 'step' ? nameOfPart(store.effect!, address.value) : '';
    const suits = suitingShape(`${part} ${address.value.setting}`.toLowerCase(), declaration.value);
    const ready = READY_SHAPES.find((one) => one.name === suits)!;
    change(`shape ${name.value}`, (target) => {
      if (reads.kind === 'age') setAgeCurve(target, readyCurveOf(ready.points), store.newId());
      else target.shapers = withItem(target.shapers, store.newId(), newShaper(reads));
    });
    const begins = reads.kind === 'age' ? ready.name : 'rising';
    if (!store.previewed) void message.info({ content: `${name.value} begins ${begins} ${text}.`, key: 'shaped' });
    if (reads.kind !== 'age' || store.isTrying()) return;
    store.lifeLine = address.value;
    close();
  }

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

  /** What a number that is kept at birth may be of where its particle is born. */
  const given = computed(() =>
    declaration.value.bases.includes('taken')
      ? GIVEN.map((from) => ({ value: from, text: GIVEN_WORDS[from], help: GIVEN_HELP[from] }))
      : [],
  );
  function take(from: string): void {
    change(`take ${name.value}`, (target) => (target.base = { kind: 'taken', from: from as Given }));
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
  return { offered, shape, copy, pastable, paste, measures, measure, given, take, canBeBroughtOut, bringOut };
}
