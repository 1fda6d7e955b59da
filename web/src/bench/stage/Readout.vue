<script setup lang="ts">
import { inject } from 'vue';
import { ENGINE } from '../bench';
import NumberField from '../chips/NumberField.vue';
import { countText } from '../entry/numbers';
import ShownTier from '../quality/ShownTier.vue';

/** Counts and milliseconds, in the stage's corner. */
defineProps<{ budget: number }>();
const emit = defineEmits<{ setBudget: [value: number] }>();
const { state } = inject(ENGINE)!;
const LIMITS = { name: 'the budget', least: 1000, most: 4_000_000, unit: '', whole: true };
</script>

<template>
  <div class="readout number painted-apart" aria-label="Counts">
    <div>
      <b data-living>{{ countText(state.living) }}</b> alive of
      <NumberField
        :text="countText(budget)"
        :limits="LIMITS"
        label="Budget: most particles living at once"
        title="The project’s budget: most particles of one effect living at once"
        @change="emit('setBudget', $event)"
      />
    </div>
    <div>
      <b>{{ state.stepMilliseconds.toFixed(1) }}</b> ms compute <b>{{ state.drawMilliseconds.toFixed(1) }}</b> ms draw
    </div>
    <div><ShownTier /></div>
    <div v-if="state.progress < 1">computing {{ Math.floor(state.progress * 100) }}%</div>
    <div
      v-else-if="!state.isExact"
      title="A change was taken up in mid-run; what it gives from the start is being computed behind"
    >
      settling {{ Math.floor(state.settled * 100) }}%
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
:deep(input) {
  width: 62px;
  background: none;
  border: 0;
  padding: 0;
  text-align: right;
  color: #c8c8ca;
}
:deep(input:hover),
:deep(input:focus) {
  background: var(--chip);
}
b {
  color: #fff;
  font-weight: 600;
}
</style>
