<script setup lang="ts">
import type { Key, KeyPlace } from '@jinx/core/document';
import { computed } from 'vue';
import { plainNumber } from '../../entry/numbers';
import ChoiceChip from '../../chips/ChoiceChip.vue';
import NumberField from '../../chips/NumberField.vue';
import { placed, tidy } from '../keyPlaces';

/** Where the chosen key stands and what it says, as fields: typed, and held by a share of life or by seconds. */
const props = defineProps<{
  keyOf: Key;
  x: number;
  life: number;
  /** In what unit its value is written; a share in percent. */
  unit: string;
  least: number;
  most: number;
}>();
const emit = defineEmits<{ change: [key: Key] }>();
const ANCHORS = [
  { value: 'share', text: 'of life' },
  { value: 'afterBirth', text: 'after birth' },
  { value: 'beforeDeath', text: 'before death' },
];
const isShare = computed(() => props.keyOf.at.anchor === 'share');
const placeText = computed(() =>
  isShare.value ? `${plainNumber(props.keyOf.at.value * 100)}%` : `${plainNumber(props.keyOf.at.value)} s`,
);
const isPercent = computed(() => props.unit === '%');
const valueText = computed(() =>
  isPercent.value ? `${plainNumber(props.keyOf.value * 100)}%` : `${plainNumber(props.keyOf.value)} ${props.unit}`,
);

const placeLimits = computed(() =>
  isShare.value
    ? { name: 'the place in life', least: 0, most: 100, unit: '%' }
    : { name: 'the time', least: 0, most: 3600, unit: 's' },
);
const valueLimits = computed(() => {
  const times = isPercent.value ? 100 : 1;
  return { name: 'the value', least: props.least * times, most: props.most * times, unit: props.unit };
});
const setPlace = (value: number) =>
  emit('change', {
    ...props.keyOf,
    at: { ...props.keyOf.at, value: tidy(isShare.value ? value / 100 : value) },
  });
const setValue = (value: number) =>
  emit('change', { ...props.keyOf, value: tidy(isPercent.value ? value / 100 : value) });
/** Another anchor holds the key where it now stands. */
const anchor = (value: string) =>
  emit('change', { ...props.keyOf, at: placed(value as KeyPlace['anchor'], props.x, props.life) });
</script>

<template>
  <div class="tool">
    <NumberField :text="placeText" :limits="placeLimits" label="place of the key" @change="setPlace" />
    <ChoiceChip :value="keyOf.at.anchor" :choices="ANCHORS" label="where the key stands" @choose="anchor" />
    <span class="quiet">at</span>
    <NumberField :text="valueText" :limits="valueLimits" label="value of the key" @change="setValue" />
  </div>
</template>

<style scoped>
.tool {
  display: flex;
  align-items: center;
  gap: 2px;
  padding: 0 4px;
  border-radius: 3px;
  background: #232326ee;
  font-size: 12px;
  white-space: nowrap;
}
button.choice,
:deep(input) {
  font-size: 12px;
}
:deep(input) {
  width: 46px;
  padding: 0 2px;
  border: 0;
  background: none;
  text-align: right;
}
:deep(input:hover),
:deep(input:focus) {
  background: var(--chip);
}
</style>
