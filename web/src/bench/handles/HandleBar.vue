<script setup lang="ts">
import type { HungValue } from '@jinx/core/document';
import { computed } from 'vue';
import { plainNumber } from '../entry/numbers';
import type { Knob } from './knobs';
import type { Tool } from './useHandles';

/** Says which handle is chosen, what pulling it does, and what it is now. */
const props = defineProps<{
  name: string;
  hung: HungValue;
  knobs: readonly Knob[];
  keys: number;
  isPulled: boolean;
  /** Whether it can have keys over the effect's time. */
  takesKeys: boolean;
}>();
const tool = defineModel<Tool>('tool', { required: true });
const emit = defineEmits<{ keyHere: [] }>();

const TOOLS = [
  { value: 'move', text: 'Move', key: '1' },
  { value: 'turn', text: 'Turn', key: '2' },
  { value: 'size', text: 'Size', key: '3' },
] as const;
const numbers = (values: readonly number[], unit: string, digits: number) =>
  `${['x', 'y', 'z'].map((axis, n) => `${axis} ${values[n]!.toFixed(digits)}`).join('  ')} ${unit}`;
const text = computed(() => {
  if (tool.value === 'move') return numbers(props.hung.offset, 'm', 2);
  if (tool.value === 'turn') return numbers(props.hung.turn, '°', 0);
  if (props.knobs.length === 0) return 'nothing to size';
  return props.knobs.map(({ name, value }) => `${name} ${plainNumber(Number(value.toFixed(3)))}`).join('  ');
});
const keysText = computed(() =>
  props.keys === 0 ? 'Key it here' : `Key here, ${props.keys} ${props.keys === 1 ? 'key' : 'keys'}`,
);
</script>

<template>
  <div class="handle-bar" role="toolbar" aria-label="Handle">
    <span class="name">{{ name }}</span>
    <button
      v-for="{ value, text: label, key } in TOOLS"
      :key="value"
      type="button"
      class="plain"
      :class="{ on: tool === value }"
      :aria-pressed="tool === value"
      :title="`${label} (${key})`"
      @click="tool = value"
    >
      {{ label }}
    </button>
    <button
      v-if="takesKeys"
      type="button"
      class="plain"
      title="Keeps this place for this instant (K). With a key, dragging at another instant makes another, and it moves between them."
      @click="emit('keyHere')"
    >
      {{ keysText }}
    </button>
    <span class="quiet number">{{ text }}</span>
    <span v-if="isPulled" class="quiet">Ctrl snaps to borders and steps, Esc gives up</span>
  </div>
</template>

<style scoped>
.handle-bar {
  display: flex;
  align-items: baseline;
  gap: 6px;
  padding: 2px 8px;
  border-radius: 4px;
  background: #131314d9;
  font-size: 12.5px;
  white-space: pre;
}
.name {
  color: var(--ink);
}
</style>
