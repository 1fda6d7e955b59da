<script setup lang="ts">
import { formatAddress, type Declaration, type HolderAddress, type Setting } from '@jinx/core/document';
import { computed } from 'vue';
import ChoiceChip from './ChoiceChip.vue';
import ColourSettingChip from '../colour/ColourSettingChip.vue';
import NumberChip from './NumberChip.vue';
import { choicesOf } from '../choices/choices';
import { useSetting } from '../values/useSetting';
import VectorSpreadChip from './VectorSpreadChip.vue';

/** Any setting of the chosen layer, or of a part of it, in a sentence: what stands there follows its declaration. */
const props = defineProps<{
  setting: string;
  of?: HolderAddress;
  label?: string;
  words?: Record<string, string>;
  /** Words beside a direction that say more than an axis, with what they do. */
  moreWays?: Readonly<Record<string, () => void>>;
}>();

const {
  address,
  declaration,
  setting: chosenSetting,
  isMixed,
  change: changeSetting,
} = useSetting<Setting, Declaration>(
  () => props.setting,
  () => props.of,
);
const name = computed(() => props.label ?? declaration.value.name);
const base = computed(() => chosenSetting.value?.base);
const choices = computed(() => {
  const declared = declaration.value;
  if (declared.value === 'choice')
    return choicesOf(declared).map((choice) => ({ ...choice, text: props.words?.[choice.value] ?? choice.text }));
  const words = { yes: 'yes', no: 'no', ...(declared.value === 'switch' ? declared.words : {}), ...props.words };
  return (['yes', 'no'] as const).map((value) => ({ value, text: words[value] }));
});
const chosen = computed(() => {
  const value = base.value?.kind === 'fixed' ? base.value.value : '';
  return typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value);
});

const set = (value: unknown, gesture: string | null = null) =>
  changeSetting(
    `set ${name.value}`,
    (target) => (target.base = { kind: 'fixed', value } as typeof target.base),
    gesture,
  );
const choose = (value: string) => set(declaration.value.value === 'switch' ? value === 'yes' : value);
</script>

<template>
  <NumberChip v-if="declaration.value === 'number'" :setting="setting" :of="of" :label="label" />
  <VectorSpreadChip
    v-else-if="declaration.value === 'vector'"
    :setting="setting"
    :of="of"
    :label="name"
    :more-ways="moreWays"
  />
  <ColourSettingChip v-else-if="declaration.value === 'colour'" :setting="setting" :of="of" :label="name" />
  <ChoiceChip
    v-else-if="declaration.value === 'choice' || declaration.value === 'switch'"
    :value="chosen"
    :choices="choices"
    :label="isMixed ? `${name}, mixed` : name"
    :class="{ mixed: isMixed, muted: chosenSetting.muted }"
    :data-address="formatAddress({ ...address, setting })"
    previews
    @choose="choose"
  />
</template>
