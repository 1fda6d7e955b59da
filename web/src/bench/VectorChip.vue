<script setup lang="ts">
import type { Vector } from '@jinx/core/document';
import PlainChip from './PlainChip.vue';

/** Three numbers in a sentence: x, y, z. */
const props = defineProps<{ value: Vector; label: string; unit?: string; least: number; most: number }>();
const emit = defineEmits<{ change: [value: Vector, gesture: string | null] }>();
function set(axis: number, number: number, gesture: string | null): void {
  const value = [...props.value] as Vector;
  value[axis] = number;
  emit('change', value, gesture);
}
</script>

<template>
  <span class="vector" role="group" :aria-label="label">
    <PlainChip
      v-for="(axis, index) in ['x', 'y', 'z']"
      :key="axis"
      :value="value[index]!"
      :label="`${label}, ${axis}`"
      :least="least"
      :most="most"
      :unit="index === 2 ? unit : undefined"
      @change="(number, gesture) => set(index, number, gesture)"
    />
  </span>
</template>

<style scoped>
.vector {
  white-space: nowrap;
}
</style>
