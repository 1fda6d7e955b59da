<script setup lang="ts">
import { CheckCircleOutlined } from '@ant-design/icons-vue';
import { Button, Popover } from 'ant-design-vue';
import { computed, inject } from 'vue';
import type { ToldFinding } from '../../engine/checksWorker';
import { ENGINE } from '../bench';
import { countText } from '../entry/numbers';
import FindingsLine from '../FindingsLine.vue';
import Readout from './Readout.vue';
import { useUnseen } from './useUnseen';

/** Counts, cost and the first finding, in one line under the picture; why the last change is not seen stands before what is only doubtful. */
const props = defineProps<{ budget: number; findings: readonly ToldFinding[] }>();
const emit = defineEmits<{
  setBudget: [value: number];
  lead: [finding: ToldFinding];
  mend: [finding: ToldFinding];
}>();
const { state } = inject(ENGINE)!;
const unseen = useUnseen();
const isWrong = computed(() => props.findings[0]?.severity === 'wrong');
const cost = computed(() => {
  if (state.progress < 1) return `computing ${Math.floor(state.progress * 100)}%`;
  const step = `${state.stepMilliseconds.toFixed(1)} ms a step`;
  return state.isExact
    ? `${step} · ${Math.round(state.drawMilliseconds)} ms to draw`
    : `${step} · settling ${Math.floor(state.settled * 100)}%`;
});
</script>

<template>
  <div class="status painted-apart">
    <Popover trigger="click" placement="topRight" destroy-tooltip-on-hide>
      <template #content><Readout :budget="budget" @set-budget="emit('setBudget', $event)" /></template>
      <Button
        type="text"
        class="counts number"
        data-guide="bench#status"
        title="How many live, and what a step and a picture cost; the budget and the quality are set here"
        ><span
          ><span class="visually-hidden">Counts and cost: </span
          ><span data-living>{{ countText(state.living) }}</span> alive · {{ cost }}</span
        ></Button
      >
    </Popover>
    <span v-if="unseen && !isWrong" class="note" role="status" data-unseen :title="unseen"
      >Not seen: {{ unseen }}</span
    >
    <FindingsLine
      v-else-if="findings.length"
      :findings="findings"
      @lead="emit('lead', $event)"
      @mend="emit('mend', $event)"
    />
    <span v-else class="note quiet"><CheckCircleOutlined /> no findings</span>
  </div>
</template>

<style scoped>
.status {
  flex: 1 1 0;
  min-width: 0;
  display: flex;
  align-items: center;
  justify-content: flex-end;
  gap: 6px;
}
.counts {
  color: var(--soft);
  flex: none;
}
.note {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
