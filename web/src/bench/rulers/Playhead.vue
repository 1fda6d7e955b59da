<script setup lang="ts">
import { computed, inject } from 'vue';
import { ENGINE } from '../bench';

/** The line at the present instant. It moves by a transform alone, so that nothing under it is painted again. */
const props = defineProps<{ left: number; width: number; seconds: number }>();
const { state } = inject(ENGINE)!;
/** On whole pixels: between two of them the line would be drawn twice, half as bright. */
const x = computed(() => Math.round(props.left + Math.min(1, state.sheetTime / props.seconds) * props.width));
</script>

<template>
  <div class="playhead painted-apart" :style="{ transform: `translateX(${x}px)` }" aria-hidden="true"></div>
</template>

<style scoped>
.playhead {
  position: absolute;
  left: 0;
  top: 6px;
  bottom: 0;
  width: 1px;
  background: #f2f2f2;
  pointer-events: none;
}
</style>
