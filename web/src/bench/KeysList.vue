<script setup lang="ts">
import { Popover } from 'ant-design-vue';
import { computed, ref } from 'vue';
import { keysWith } from './commands/placeKeys';
import { injectCommands, useCommands } from './commands/registry';

/** The bench's keys, in one place, found by what they do. */
const isOpen = ref(false);
const sought = ref('');
const field = ref<HTMLInputElement>();
const commands = injectCommands();
const shown = computed(() => keysWith(commands.all, sought.value));
/** Frames within which the list has come up far enough to be typed into. */
const MOST_FRAMES = 30;
function opened(open: boolean): void {
  isOpen.value = open;
  if (!open) return;
  sought.value = '';
  const focus = (frames: number): void => {
    field.value?.focus();
    if (frames > 0 && isOpen.value && document.activeElement !== field.value)
      requestAnimationFrame(() => focus(frames - 1));
  };
  focus(MOST_FRAMES);
}
useCommands({ 'keys.list': () => opened(true) });
</script>

<template>
  <Popover :open="isOpen" trigger="click" placement="topRight" @open-change="opened">
    <template #content>
      <div class="list" @keydown.esc.stop="isOpen = false">
        <input
          ref="field"
          v-model="sought"
          class="chip"
          placeholder="What do you want to do?"
          aria-label="find a key"
        />
        <dl class="keys">
          <template v-for="[key, what] in shown" :key="key">
            <dt>{{ key }}</dt>
            <dd>{{ what }}</dd>
          </template>
        </dl>
        <p v-if="shown.length === 0" class="quiet">No key does that.</p>
      </div>
    </template>
    <button type="button" class="plain" title="Every key of the bench (?)">Keys</button>
  </Popover>
</template>

<style scoped>
.list {
  width: 500px;
  max-height: 480px;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.list input {
  cursor: text;
}
.keys {
  display: grid;
  grid-template-columns: auto auto;
  gap: 3px 18px;
  margin: 0;
  overflow-y: auto;
}
dt {
  color: var(--ink);
}
dd {
  margin: 0;
  color: var(--soft);
}
</style>
