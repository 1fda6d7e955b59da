<script setup lang="ts">
import { Button, Input, Modal, Switch } from 'ant-design-vue';
import { computed, nextTick, ref } from 'vue';
import { keyOf } from './commands/keys';
import { keyName, keysWith } from './commands/placeKeys';
import { injectCommands, useCommands } from './commands/registry';

/** The bench's keys, in one place: found by what they do, given to other commands, single letters switched off. */
const isOpen = ref(false);
const sought = ref('');
const field = ref<{ focus(): void }>();
const commands = injectCommands();
const { keys, hasLetters, areChanged } = commands.wishes!;
const shown = computed(() => keysWith(commands, sought.value));
/** The command that the next key is given to. */
const waiting = ref<string | null>(null);
/** What the last change took from another command. */
const told = ref('');
function open(): void {
  isOpen.value = true;
  [sought.value, told.value, waiting.value] = ['', '', null];
  void nextTick(focus);
}
/** Frames within which the dialog has come up far enough to be typed into. */
const MOST_FRAMES = 30;
function focus(frames = MOST_FRAMES): void {
  field.value?.focus();
  const isThere = document.activeElement?.closest('.ant-modal') && document.activeElement instanceof HTMLInputElement;
  if (frames > 0 && isOpen.value && !isThere) requestAnimationFrame(() => focus(frames - 1));
}
useCommands({ 'keys.list': open });

/** Gives the pressed key. Escape leaves the command as it was, Backspace takes its key away. */
function take(event: KeyboardEvent): void {
  const id = waiting.value;
  if (id === null) return;
  event.preventDefault();
  event.stopPropagation();
  const key = keyOf(event);
  if (key === null) return;
  waiting.value = null;
  if (key === 'Escape') return;
  const had = commands.setKey(id, key === 'Backspace' ? null : key);
  told.value = had ? `${keyName(key)} was the key of “${had.label}”, which has it no more.` : '';
}
function setBack(): void {
  [keys.value, hasLetters.value, told.value] = [{}, true, ''];
}
</script>

<template>
  <Modal v-model:open="isOpen" title="Keys" :footer="null" width="620px">
    <div class="bar">
      <Input
        ref="field"
        v-model:value="sought"
        placeholder="What do you want to do?"
        aria-label="find a key"
        allow-clear
      />
      <label title="Switched off, only keys with Ctrl or Alt, Space and named keys act">
        Single letters <Switch v-model:checked="hasLetters" size="small" aria-label="Single letters act" />
      </label>
      <Button type="link" :disabled="!areChanged" @click="setBack">As they were</Button>
    </div>
    <p v-if="told" class="quiet" role="status">{{ told }}</p>
    <dl class="keys" @keydown.capture="take">
      <template v-for="(line, n) in shown" :key="line.id ?? n">
        <dt>
          <Button
            v-if="line.id !== null"
            class="key"
            :class="{ waiting: waiting === line.id }"
            :aria-label="`${line.keys.join(', ') || 'no key'}: change the key of ${line.what}`"
            :title="
              waiting === line.id ? 'Escape leaves it, Backspace takes it away' : 'Press to give it another key'
            "
            @click="waiting = line.id"
            @blur="waiting = null"
            >{{ waiting === line.id ? 'press a key…' : line.keys.join(', ') || 'no key' }}</Button
          >
          <template v-else>{{ line.keys.join(', ') }}</template>
        </dt>
        <dd>{{ line.what }}</dd>
      </template>
    </dl>
    <p v-if="shown.length === 0" class="quiet">No key does that.</p>
  </Modal>
</template>

<style scoped>
.bar {
  display: flex;
  gap: 16px;
  align-items: center;
  white-space: nowrap;
}
.bar > :first-child {
  flex: 1;
  min-width: 0;
}
.keys {
  display: grid;
  grid-template-columns: 210px 1fr;
  align-items: baseline;
  gap: 2px 18px;
  margin: 10px 0 0;
  height: 420px;
  overflow-y: auto;
  align-content: start;
}
dt {
  color: var(--ink);
}
.key {
  min-width: 40px;
}
.key.waiting {
  border-color: var(--accent);
  color: var(--accent);
}
dd {
  margin: 0;
  color: var(--soft);
}
</style>
