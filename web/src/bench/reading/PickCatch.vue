<script setup lang="ts">
import { onMounted, ref } from 'vue';

/** Lies over the stage while something on it is to be pressed; Escape ends that, Enter takes what is in the middle where that is offered. */
defineProps<{ words: string; help: string }>();
const emit = defineEmits<{ press: [event: PointerEvent]; middle: []; end: [] }>();
const root = ref<HTMLElement>();
onMounted(() => root.value?.focus({ preventScroll: true }));
</script>

<template>
  <div
    ref="root"
    class="catch"
    role="button"
    tabindex="0"
    :aria-label="help"
    @pointerdown.stop="emit('press', $event)"
    @keydown.enter.stop="emit('middle')"
    @keydown.esc.stop="emit('end')"
  >
    <span>{{ words }}</span>
  </div>
</template>

<style scoped>
.catch {
  position: absolute;
  inset: 0;
  cursor: crosshair;
}
.catch span {
  position: absolute;
  left: 50%;
  bottom: 44px;
  transform: translateX(-50%);
  background: #101011d8;
  padding: 2px 10px;
  border-radius: 4px;
}
</style>
