<script setup lang="ts">
import type { Ease } from './curveEdit';

/** How the line goes through its chosen keys, as small pictures. */
defineProps<{ disabled?: boolean }>();
const emit = defineEmits<{ ease: [to: Ease]; flip: [] }>();
const EASES: readonly { to: Ease; label: string; title: string; d: string }[] = [
  { to: 'smooth', label: 'smooth', title: 'Round through the chosen keys (S)', d: 'M1 11C6 11 8 2 15 2' },
  { to: 'sharp', label: 'sharp', title: 'Straight from key to key (P)', d: 'M1 11L8 3L15 9' },
  { to: 'held', label: 'held', title: 'Level until the next key (H)', d: 'M1 11H8V3H15' },
];
</script>

<template>
  <span class="eases" role="group" aria-label="How the line goes through its keys">
    <button
      v-for="{ to, label, title, d } in EASES"
      :key="to"
      type="button"
      class="plain"
      :aria-label="label"
      :title="title"
      :disabled="disabled"
      @click="emit('ease', to)"
    >
      <svg width="16" height="13" aria-hidden="true"><path :d="d" /></svg>
    </button>
    <button
      type="button"
      class="plain"
      aria-label="flip"
      title="End for end (F)"
      :disabled="disabled"
      @click="emit('flip')"
    >
      <svg width="16" height="13" aria-hidden="true">
        <path d="M5 2L1.5 6.500L5 11M11 2L14.500 6.500L11 11M2 6.500H14" />
      </svg>
    </button>
  </span>
</template>

<style scoped>
.eases {
  display: flex;
}
.eases .plain {
  padding: 1px 4px;
  display: flex;
}
path {
  fill: none;
  stroke: currentColor;
  stroke-width: 1.6;
}
</style>
