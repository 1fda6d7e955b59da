<script setup lang="ts">
import type { Finding } from '@jinx/core/checks';
import { computed, ref } from 'vue';
import { useEffectStore } from '../stores/effect';

/** Findings under the stage, one sentence at a time, each with its mend. */
const props = defineProps<{ findings: readonly Finding[] }>();
const store = useEffectStore();
const at = ref(0);
const shown = computed(() => props.findings[at.value % Math.max(1, props.findings.length)]);
function mend(finding: Finding): void {
  store.change(finding.mend!.label.toLowerCase(), finding.mend!.apply);
}
</script>

<template>
  <div v-if="shown" class="line" role="status">
    <span class="sentence"><span aria-hidden="true">▲ </span>{{ shown.sentence }}</span>
    <button v-if="shown.mend" type="button" class="mend" @click="mend(shown)">{{ shown.mend.label }}</button>
    <button v-if="findings.length > 1" type="button" class="plain" @click="at++">
      {{ findings.length - 1 }} more
    </button>
  </div>
</template>

<style scoped>
.line {
  display: flex;
  gap: 8px;
  align-items: baseline;
  background: #101011c8;
  padding: 2px 8px;
  border-radius: 4px;
  font-size: 13px;
}
.sentence {
  color: var(--warn);
}
.mend {
  background: none;
  border: 0;
  padding: 0;
  border-bottom: 1px solid var(--ink);
  cursor: pointer;
}
</style>
