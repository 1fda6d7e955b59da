<script setup lang="ts">
import { stepsOf } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { hexOf } from '../colour';
import { useLayer } from '../life';
import { PAD, readable } from './layout';

/** Small pictures of one particle at successive ages. */
const props = defineProps<{ layerId: string; width: number; height: number }>();
const PICTURES = 12;
const { layer, life } = useLayer(() => props.layerId);
const store = useEffectStore();
/** The first shape that its look draws. */
const shape = computed(() => {
  const drawn = stepsOf(store.effect!, layer.value).find(({ item }) => item.kind === 'drawn' && !item.muted);
  return drawn?.item.kind === 'drawn' ? drawn.item.settings.shape.base.value : 'disc';
});
const lifeSamples = life(PICTURES);
const pictures = computed(() => {
  const samples = lifeSamples.value;
  const largest = Math.max(1e-9, ...samples.map(({ size }) => size));
  const densest = Math.max(1e-9, ...samples.map(({ opacity }) => opacity));
  return samples.map(({ age, size, rgb, opacity, intensity }) => ({
    age,
    x: PAD + age * (props.width - 2 * PAD),
    radius: Math.max(0.6, (size / largest) * (props.height / 2 - 3)),
    css: hexOf(rgb.map((c) => c * Math.min(2, Math.max(0.7, intensity)))),
    opacity: readable(opacity, densest),
  }));
});
</script>

<template>
  <svg :width="width" :height="height" role="img" aria-label="one particle at successive ages">
    <defs>
      <radialGradient v-for="(picture, i) in pictures" :id="`film-${i}`" :key="i">
        <stop offset="0" :stop-color="picture.css" />
        <stop
          :offset="shape === 'disc' ? 0.97 : 0.35"
          :stop-color="picture.css"
          :stop-opacity="shape === 'disc' ? 1 : 0.85"
        />
        <stop offset="1" :stop-color="picture.css" stop-opacity="0" />
      </radialGradient>
    </defs>
    <g v-for="(picture, i) in pictures" :key="i" :opacity="picture.opacity">
      <circle
        v-if="shape === 'ring'"
        :cx="picture.x"
        :cy="height / 2"
        :r="picture.radius * 0.86"
        fill="none"
        :stroke="picture.css"
        stroke-width="1.6"
      />
      <circle v-else :cx="picture.x" :cy="height / 2" :r="picture.radius" :fill="`url(#film-${i})`" />
      <path
        v-if="shape === 'flare'"
        :d="`M${picture.x - picture.radius} ${height / 2}h${picture.radius * 2}M${picture.x} ${height / 2 - picture.radius}v${picture.radius * 2}`"
        :stroke="picture.css"
      />
    </g>
  </svg>
</template>
