<script setup lang="ts">
import { nextTick, ref } from 'vue';

/** A button that offers things to do. Unlike a drop-down list it acts only when one is chosen, not while keys walk it. */
defineProps<{ label: string; choices: readonly { value: string; text: string }[] }>();
const emit = defineEmits<{ choose: [value: string] }>();
const isOpen = ref(false);
const root = ref<HTMLElement>();
const button = ref<HTMLButtonElement>();
/** The menu is laid over the page where there is room for it, so that nothing it stands in cuts it off. */
const place = ref<Record<string, string>>({});
const ROOM = 270;
function put(): void {
  const { left, top, bottom } = button.value!.getBoundingClientRect();
  const isAbove = window.innerHeight - bottom < ROOM && top > window.innerHeight - bottom;
  place.value = {
    left: `${Math.max(4, Math.min(left, window.innerWidth - ROOM))}px`,
    ...(isAbove ? { bottom: `${window.innerHeight - top}px` } : { top: `${bottom}px` }),
  };
}
const items = () => [...(root.value?.querySelectorAll<HTMLElement>('[role=menuitem]') ?? [])];

async function open(): Promise<void> {
  put();
  isOpen.value = true;
  await nextTick();
  items()[0]?.focus({ preventScroll: true });
}
function close(): void {
  isOpen.value = false;
  button.value?.focus();
}
function choose(value: string): void {
  close();
  emit('choose', value);
}
function walk(event: KeyboardEvent): void {
  const all = items();
  const at = all.indexOf(document.activeElement as HTMLElement);
  const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: all.length - 1 }[event.key];
  if (event.key === 'Escape') close();
  else if (to !== undefined) all[(to + all.length) % all.length]?.focus();
  else return;
  event.preventDefault();
  event.stopPropagation();
}
function leave(event: FocusEvent): void {
  if (!root.value?.contains(event.relatedTarget as Node)) isOpen.value = false;
}
</script>

<template>
  <span ref="root" class="menu-holder" @focusout="leave">
    <button
      ref="button"
      type="button"
      class="plain act"
      aria-haspopup="menu"
      :aria-expanded="isOpen"
      @click="isOpen ? close() : open()"
      @keydown.down.prevent="open"
    >
      {{ label }}
    </button>
    <span v-if="isOpen" class="menu" role="menu" :style="place" :aria-label="label" @keydown="walk">
      <button
        v-for="choice in choices"
        :key="choice.value"
        type="button"
        class="plain"
        role="menuitem"
        tabindex="-1"
        @click="choose(choice.value)"
      >
        {{ choice.text }}
      </button>
    </span>
  </span>
</template>

<style scoped>
.menu-holder {
  position: relative;
  display: inline-block;
}
.menu {
  position: fixed;
  z-index: 30;
  max-height: 260px;
  overflow: hidden auto;
  display: flex;
  flex-direction: column;
  padding: 3px;
  background: #232326;
  border: 1px solid #434347;
  border-radius: 4px;
  box-shadow: 0 6px 18px #000a;
}
.menu .plain {
  text-align: left;
  white-space: nowrap;
  color: var(--ink);
}
.menu .plain:hover,
.menu .plain:focus-visible {
  background: var(--chip-over);
}
</style>
