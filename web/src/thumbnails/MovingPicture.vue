<script setup lang="ts">
import { computed } from 'vue';
import type { Strip } from './strip';

/** A small picture of which the instants stand side by side: it rests at one of them, and goes through all while it plays. */
const props = defineProps<{ strip: Strip; plays?: boolean }>();
const style = computed(() => {
  const { address, instants, rest } = props.strip;
  return {
    backgroundImage: `url(${address})`,
    backgroundSize: `${instants * 100}% 100%`,
    backgroundPosition: `${(100 * rest) / (instants - 1)}% 0`,
    animationTimingFunction: `steps(${instants}, jump-none)`,
  };
});
</script>

<template>
  <span class="strip" :class="{ plays }" :style="style" aria-hidden="true"></span>
</template>

<style scoped>
.strip {
  display: inline-block;
  border-radius: 4px;
  background-color: var(--deep);
}
.plays {
  animation-name: play;
  animation-duration: 2s;
  animation-iteration-count: infinite;
}
@keyframes play {
  from {
    background-position: 0 0;
  }
  to {
    background-position: 100% 0;
  }
}
@media (prefers-reduced-motion: reduce) {
  .plays {
    animation-name: none;
  }
}
</style>
