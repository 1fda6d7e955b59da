<script setup lang="ts">
import type { Key } from '@jinx/core/document';
import { computed } from 'vue';
import { plainNumber } from '../../entry/numbers';
import NumberField from '../../chips/NumberField.vue';
import { tidy } from '../keyPlaces';
import KeyPlaceFields from './KeyPlaceFields.vue';

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
const isPercent = computed(() => props.unit === '%');
const valueText = computed(() =>
  isPercent.value ? `${plainNumber(props.keyOf.value * 100)}%` : `${plainNumber(props.keyOf.value)} ${props.unit}`,
);

const valueLimits = computed(() => {
  const times = isPercent.value ? 100 : 1;
  return { name: 'the value', least: props.least * times, most: props.most * times, unit: props.unit };
});
const setValue = (value: number) =>
  emit('change', { ...props.keyOf, value: tidy(isPercent.value ? value / 100 : value) });
</script>

<template>
  <div class="tool">
    <KeyPlaceFields
      :at="keyOf.at"
      :x="x"
      :life="life"
      what="key"
      @change="(at) => emit('change', { ...keyOf, at })"
    />
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
  font-size: 12.5px;
  white-space: nowrap;
}
button.choice,
:deep(input) {
  font-size: 12.5px;
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
