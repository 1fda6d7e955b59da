<script setup lang="ts">
import { computed, ref } from 'vue';
import type { ToldFinding } from '../engine/checksWorker';

/** Findings under the stage: the first as a sentence with its mend, all of them when asked for. Pressed, a sentence leads to where it is put right. */
const props = defineProps<{ findings: readonly ToldFinding[] }>();
const emit = defineEmits<{ lead: [finding: ToldFinding]; mend: [finding: ToldFinding] }>();
const isOpen = ref(false);
const shown = computed(() => (isOpen.value ? props.findings : props.findings.slice(0, 1)));
</script>

<template>
  <div v-if="findings.length" class="findings" :class="{ open: isOpen }" role="status">
    <p v-for="finding in shown" :key="finding.id" :class="finding.severity">
      <button type="button" class="sentence" title="Go where it is put right" @click="emit('lead', finding)">
        <span aria-hidden="true">{{ finding.severity === 'wrong' ? '▲' : '△' }}&nbsp;</span
        ><span class="unseen">{{ finding.severity === 'wrong' ? 'Wrong: ' : 'Doubtful: ' }}</span
        >{{ finding.sentence }}
      </button>
      <button v-if="finding.mend" type="button" class="mend" @click="emit('mend', finding)">
        {{ finding.mend }}
      </button>
    </p>
    <button
      v-if="findings.length > 1"
      type="button"
      class="plain more"
      :aria-expanded="isOpen"
      @click="isOpen = !isOpen"
    >
      {{ isOpen ? 'fewer' : `${findings.length - 1} more` }}
    </button>
  </div>
</template>

<style scoped>
.findings {
  display: flex;
  gap: 8px;
  align-items: baseline;
  background: #101011d8;
  padding: 2px 8px;
  border-radius: 4px;
  font-size: 13px;
}
.findings.open {
  display: block;
  max-height: 220px;
  overflow-y: auto;
}
p {
  margin: 0;
  padding: 1px 0;
}
.sentence {
  background: none;
  border: 0;
  padding: 0;
  margin-right: 8px;
  text-align: left;
  color: var(--warn);
  cursor: pointer;
}
.doubtful .sentence {
  color: var(--ink);
}
.unseen {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
.mend {
  background: none;
  border: 0;
  padding: 0;
  border-bottom: 1px solid var(--ink);
  cursor: pointer;
}
.more {
  white-space: nowrap;
}
</style>
