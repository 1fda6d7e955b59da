<script setup lang="ts">
import type { HungValue } from '@jinx/core/document';
import { computed } from 'vue';
import type { Tool } from '../bench';
import { plainNumber } from '../entry/numbers';
import type { Knob } from './knobs';

/** Says beside a handle what it is now, while it is pulled. */
const props = defineProps<{ name: string; tool: Tool; hung: HungValue; knobs: readonly Knob[] }>();
const numbers = (values: readonly number[], unit: string, digits: number) =>
  `${['x', 'y', 'z'].map((axis, n) => `${axis} ${values[n]!.toFixed(digits)}`).join('  ')} ${unit}`;
const text = computed(() => {
  if (props.tool === 'move') return numbers(props.hung.offset, 'm', 2);
  if (props.tool === 'turn') return numbers(props.hung.turn, '°', 0);
  return props.knobs.map(({ name, value }) => `${name} ${plainNumber(Number(value.toFixed(3)))}`).join('  ');
});
</script>

<template>
  <div class="numbers number" role="status">
    {{ name }} {{ text }}
    <span class="quiet">Ctrl snaps to borders and steps, Esc gives up</span>
  </div>
</template>

<style scoped>
.numbers {
  position: absolute;
  padding: 1px 8px;
  border-radius: 4px;
  background: #131314d9;
  font-size: 12.5px;
  white-space: pre;
  pointer-events: none;
}
</style>
