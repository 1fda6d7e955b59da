<script setup lang="ts">
import { inject } from 'vue';
import { ENGINE } from './bench';
import { sumOf } from './format';
import TextField from './TextField.vue';

/** Counts and milliseconds, in the stage's corner. */
const props = defineProps<{ budget: number }>();
const emit = defineEmits<{ setBudget: [value: number] }>();
const { state } = inject(ENGINE)!;
function commit(text: string): void {
  let value = props.budget;
  try {
    value = Math.round(Math.min(4_000_000, Math.max(1000, sumOf(text.replace(/,/g, '')))));
  } catch {
    // What cannot be read leaves the budget as it was.
  }
  if (value !== props.budget) emit('setBudget', value);
}
</script>

<template>
  <div class="readout number" aria-label="Counts">
    <div>
      <b data-living>{{ state.living.toLocaleString('en') }}</b> alive of
      <TextField
        :value="budget.toLocaleString('en')"
        aria-label="Budget: most particles living at once"
        title="The project’s budget: most particles of one effect living at once"
        @commit="commit"
      />
    </div>
    <div>
      <b>{{ state.stepMilliseconds.toFixed(1) }}</b> ms compute <b>{{ state.drawMilliseconds.toFixed(1) }}</b> ms draw
    </div>
    <div v-if="state.progress < 1">computing {{ Math.floor(state.progress * 100) }}%</div>
    <div
      v-else-if="!state.isExact"
      title="A change was taken up in mid-run: pause, and it is computed from the start"
    >
      settling: exact when paused
    </div>
  </div>
</template>

<style scoped>
.readout {
  position: absolute;
  top: 8px;
  right: 12px;
  text-align: right;
  font-size: 12.5px;
  line-height: 18px;
  color: #c8c8ca;
  background: #101011b0;
  padding: 2px 8px;
  border-radius: 4px;
}
input {
  width: 62px;
  background: none;
  border: 0;
  padding: 0;
  text-align: right;
  color: #c8c8ca;
}
input:hover,
input:focus {
  background: var(--chip);
}
b {
  color: #fff;
  font-weight: 600;
}
</style>
