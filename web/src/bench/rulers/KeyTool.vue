<script setup lang="ts">
import type { Key, KeyPlace } from '@jinx/core/document';
import { computed } from 'vue';
import { plainNumber, sumOf } from '../format';
import TextField from '../TextField.vue';
import { placed, tidy } from './keyPlaces';

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
const isShare = computed(() => props.keyOf.at.anchor === 'share');
const placeText = computed(() =>
  isShare.value ? `${plainNumber(props.keyOf.at.value * 100)}%` : `${plainNumber(props.keyOf.at.value)} s`,
);
const within = (value: number, most: number, least = 0) => tidy(Math.min(most, Math.max(least, value)));
const isPercent = computed(() => props.unit === '%');
const valueText = computed(() =>
  isPercent.value ? `${plainNumber(props.keyOf.value * 100)}%` : `${plainNumber(props.keyOf.value)} ${props.unit}`,
);

function typed(text: string, take: (number: number) => Key): void {
  try {
    emit('change', take(sumOf(text.replace(/[^\d.)]+$/, ''))));
  } catch {
    // What is no number leaves the key where it was.
  }
}
const typePlace = (text: string) =>
  typed(text, (number) => ({
    ...props.keyOf,
    at: { ...props.keyOf.at, value: isShare.value ? within(number / 100, 1) : within(number, 3600) },
  }));
const typeValue = (text: string) =>
  typed(text, (number) => ({
    ...props.keyOf,
    value: within(isPercent.value ? number / 100 : number, props.most, props.least),
  }));
/** Another anchor holds the key where it now stands. */
const anchor = (value: string) =>
  emit('change', { ...props.keyOf, at: placed(value as KeyPlace['anchor'], props.x, props.life) });
</script>

<template>
  <div class="tool">
    <TextField class="number" :value="placeText" aria-label="place of the key" @commit="typePlace" />
    <select
      class="chip"
      :value="keyOf.at.anchor"
      aria-label="where the key stands"
      @change="anchor(($event.target as HTMLSelectElement).value)"
    >
      <option value="share">of life</option>
      <option value="afterBirth">after birth</option>
      <option value="beforeDeath">before death</option>
    </select>
    <span class="quiet">at</span>
    <TextField class="number" :value="valueText" aria-label="value of the key" @commit="typeValue" />
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
select,
input {
  font-size: 12px;
}
input {
  width: 46px;
  padding: 0 2px;
  border: 0;
  background: none;
  text-align: right;
}
input:hover,
input:focus {
  background: var(--chip);
}
</style>
