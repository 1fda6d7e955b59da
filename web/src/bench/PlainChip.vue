<script setup lang="ts">
import { ref, watch } from 'vue';
import { plainNumber, sumOf } from './format';

/** A bare number in a sentence: typed, or nudged by the arrow keys. */
const props = defineProps<{
  value: number;
  label: string;
  unit?: string;
  least: number;
  most: number;
  whole?: boolean;
}>();
const emit = defineEmits<{ change: [value: number] }>();
const text = ref('');
watch(
  () => props.value,
  (value) => (text.value = plainNumber(value)),
  { immediate: true },
);
function take(value: number): void {
  const fitted = Math.min(
    props.most,
    Math.max(props.least, props.whole ? Math.round(value) : Number(value.toPrecision(6))),
  );
  text.value = plainNumber(fitted);
  if (fitted !== props.value) emit('change', fitted);
}
function commit(): void {
  try {
    take(sumOf(text.value));
  } catch {
    text.value = plainNumber(props.value);
  }
}
function nudge(event: KeyboardEvent, direction: number): void {
  event.preventDefault();
  const step = props.whole ? 1 : 0.05;
  take(props.value + direction * step * (event.shiftKey ? 10 : 1));
}
</script>

<template>
  <input
    v-model="text"
    class="chip number"
    :aria-label="label"
    :title="label"
    @blur="commit"
    @keydown.enter="commit"
    @keydown.up="nudge($event, 1)"
    @keydown.down="nudge($event, -1)"
  /><span v-if="unit">&nbsp;{{ unit }}</span>
</template>

<style scoped>
.chip {
  width: 56px;
  cursor: text;
  text-align: right;
}
</style>
