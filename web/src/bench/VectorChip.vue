<script setup lang="ts">
import type { Vector } from '@jinx/core/document';
import { ref, watch } from 'vue';
import { plainNumber, sumOf } from './format';

/** Three numbers in a sentence: x, y, z. */
const props = defineProps<{ value: Vector; label: string; unit?: string }>();
const emit = defineEmits<{ change: [value: Vector] }>();
const texts = ref<string[]>([]);
watch(
  () => props.value,
  (value) => (texts.value = value.map(plainNumber)),
  { immediate: true },
);
function commit(axis: number): void {
  try {
    const value = [...props.value] as Vector;
    value[axis] = Math.min(1000, Math.max(-1000, sumOf(texts.value[axis]!)));
    if (value[axis] !== props.value[axis]) emit('change', value);
  } catch {
    texts.value = props.value.map(plainNumber);
  }
}
</script>

<template>
  <span class="vector" role="group" :aria-label="label">
    <input
      v-for="(axis, index) in ['x', 'y', 'z']"
      :key="axis"
      v-model="texts[index]"
      class="chip number"
      :aria-label="`${label}, ${axis}`"
      :title="`${label}: ${axis}`"
      @blur="commit(index)"
      @keydown.enter="commit(index)"
    /><span v-if="unit">&nbsp;{{ unit }}</span>
  </span>
</template>

<style scoped>
.vector .chip {
  width: 46px;
  cursor: text;
  text-align: right;
}
</style>
