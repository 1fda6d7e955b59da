<script setup lang="ts">
import { inject } from 'vue';
import { ENGINE } from './bench';

/** Counts and milliseconds, in the stage's corner. */
defineProps<{ budget: number }>();
const { state } = inject(ENGINE)!;
</script>

<template>
  <div class="readout number" aria-label="Counts">
    <div>
      <b data-living>{{ state.living.toLocaleString('en') }}</b> alive of {{ budget.toLocaleString('en') }}
    </div>
    <div>
      <b>{{ state.stepMilliseconds.toFixed(1) }}</b> ms compute <b>{{ state.drawMilliseconds.toFixed(1) }}</b> ms draw
    </div>
    <div v-if="state.progress < 1">computing {{ Math.floor(state.progress * 100) }}%</div>
    <div v-else-if="!state.isExact">settling when paused</div>
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
  pointer-events: none;
  background: #101011b0;
  padding: 2px 8px;
  border-radius: 4px;
}
b {
  color: #fff;
  font-weight: 600;
}
</style>
