<script setup lang="ts">
import type { Census } from '@jinx/core/simulation';
import { plainNumber } from '../entry/numbers';
import { useProbe } from './probe';

/** The rows of the living that are in sight; above and below them stands the height of those that are scrolled away. */
const props = defineProps<{
  census: Census;
  /** Rows of the census. */
  rows: readonly number[];
  /** Columns of the census that are shown. */
  columns: readonly number[];
  above: number;
  below: number;
  height: number;
}>();
const emit = defineEmits<{ choose: [row: number] }>();
const probe = useProbe();
const cell = (row: number, column: number) =>
  plainNumber(props.census.values[row * props.census.columns.length + column]!);
</script>

<template>
  <tbody>
    <tr aria-hidden="true" :style="{ height: `${above}px` }"></tr>
    <tr
      v-for="row in rows"
      :key="census.keys[row]!"
      class="living-row"
      tabindex="0"
      :class="{ on: probe.key === census.keys[row] }"
      :style="{ height: `${height}px` }"
      title="Put it under the glass"
      @click="emit('choose', row)"
      @keydown.enter="emit('choose', row)"
    >
      <td v-for="column in columns" :key="column" class="number">{{ cell(row, column) }}</td>
    </tr>
    <tr aria-hidden="true" :style="{ height: `${below}px` }"></tr>
  </tbody>
</template>

<style scoped>
.living-row {
  cursor: pointer;
  font-size: 12.5px;
}
.living-row:hover {
  background: #232326;
}
.living-row.on {
  background: #2b2b2f;
  box-shadow: inset 2px 0 0 var(--accent);
}
td {
  text-align: right;
  padding: 0 8px;
}
</style>
