<script setup lang="ts">
import { computed } from 'vue';
import { hexOfLinear } from '@jinx/core/maths';
import { useLayer } from '../values/life';
import { PAD, readable } from './layout';

/** A layer's life in one band: as wide as the particle is big, in its colours, as dense as it is opaque. */
const props = defineProps<{ layerId: string; width: number; height: number }>();
const inner = computed(() => props.width - 2 * PAD);
const samples = useLayer(() => props.layerId).life(32);
const largest = computed(() => Math.max(1e-9, ...samples.value.map(({ size }) => size)));
const outline = computed(() => {
  const middle = props.height / 2;
  const half = (size: number) => (size / largest.value) * (props.height / 2 - 3);
  const at = (age: number) => (PAD + age * inner.value).toFixed(1);
  const upper = samples.value.map(({ age, size }) => `${at(age)} ${(middle - half(size)).toFixed(1)}`);
  const lower = [...samples.value].reverse().map(({ age, size }) => `${at(age)} ${(middle + half(size)).toFixed(1)}`);
  return `M${[...upper, ...lower].join('L')}Z`;
});
const densest = computed(() => Math.max(1e-9, ...samples.value.map(({ opacity }) => opacity)));
const stops = computed(() =>
  samples.value
    .filter((_, i) => i % 2 === 0)
    .map(({ age, rgb, opacity, intensity }) => ({
      age,
      css: hexOfLinear(rgb.map((c) => c * Math.min(1.6, Math.max(0.6, intensity)))),
      opacity: readable(opacity, densest.value),
    })),
);
</script>

<template>
  <svg :width="width" :height="height" role="img" aria-label="life of a particle, birth to death" class="strip">
    <defs>
      <linearGradient :id="`life-${layerId}`">
        <stop
          v-for="stop in stops"
          :key="stop.age"
          :offset="stop.age"
          :stop-color="stop.css"
          :stop-opacity="stop.opacity"
        />
      </linearGradient>
    </defs>
    <path :d="outline" :fill="`url(#life-${layerId})`" />
  </svg>
</template>

<style scoped>
.strip {
  display: block;
}
</style>
