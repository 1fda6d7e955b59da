<script setup lang="ts">
import { Button, Input, message } from 'ant-design-vue';
import { ref, watch } from 'vue';
import { useEffectStore } from '../../stores/effect';
import MenuButton from '../chips/MenuButton.vue';
import { LOOSENED } from '../values/loosen';
import { byEntry, byLoosening, changeMarked, clearMarks, marks } from '../values/marks';

/** What is done to all marked numbers at once. */
const store = useEffectStore();
const typed = ref('');
const problem = ref('');

function change(label: string, how: Parameters<typeof changeMarked>[2]): void {
  let done: ReturnType<typeof changeMarked> = { set: [], refused: [] };
  store.change(label, (draft) => {
    done = changeMarked(draft, store.openIds(draft), how);
  });
  if (store.isTrying() || store.previewed) return;
  problem.value = done.refused.join('; ');
  if (done.set.length > 0) void message.info({ content: `${done.set.join(', ')}.`, key: 'marks' }, 6);
}
function take(): void {
  if (typed.value.trim() === '') return;
  change('set marked numbers', byEntry(typed.value));
  if (problem.value === '') typed.value = '';
}
watch(() => store.chosenId, clearMarks);
</script>

<template>
  <div v-if="marks.size > 0" class="marks" role="toolbar" aria-label="Marked numbers">
    <span>{{ marks.size }} {{ marks.size === 1 ? 'number' : 'numbers' }} marked:</span>
    <Input
      v-model:value="typed"
      class="entry"
      aria-label="entry for all marked numbers"
      placeholder="*1.15, +-20%"
      :status="problem ? 'error' : ''"
      :aria-invalid="problem !== ''"
      @keydown.enter.prevent="take"
      @keydown.esc.stop="clearMarks"
    />
    <MenuButton
      label="loosen…"
      :choices="LOOSENED"
      previews
      @choose="change('loosen marked numbers', byLoosening(Number($event) / 100))"
    />
    <Button type="text" @click="clearMarks">none</Button>
    <span v-if="problem" class="problem" role="alert">{{ problem }}</span>
  </div>
</template>

<style scoped>
.marks {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 8px;
  margin-right: 14px;
  padding: 6px 0;
  border-top: 1px solid var(--rule);
}
.entry {
  width: 110px;
}
.problem {
  color: var(--warn);
}
</style>
