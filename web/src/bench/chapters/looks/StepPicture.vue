<script setup lang="ts">
import { samplesAt } from '@jinx/core/checks';
import { ref, watch } from 'vue';
import { useEffectStore } from '../../../stores/effect';
import { useLayer } from '../../values/life';
import { particleSamples, useParticlePictures } from '../../values/particlePictures';

/** What the look has become after one of its steps, on one particle halfway through its life. */
const props = defineProps<{ stepId: string; name: string; muted: boolean }>();
const SIZE = 44;
const HALFWAY = [0.5];
const store = useEffectStore();
const canvas = ref<HTMLCanvasElement>();
const { layer, lifetimes } = useLayer(() => store.chosenId);

const { later } = useParticlePictures(
  () => {
    // The stage leaves out what is muted.
    if (props.muted) return null;
    const id = store.chosenId;
    const life = samplesAt(store.effect!, id, HALFWAY);
    // It is seen as if it covered, however faint the layer is.
    const samples = particleSamples(store.effect!, id, life, lifetimes.value[1], () => 1);
    const size = Math.round(SIZE * Math.min(2, window.devicePixelRatio));
    return { salt: layer.value.salt, step: props.stepId, samples, size };
  },
  (picture) => {
    const target = canvas.value;
    if (!target || !picture) return;
    [target.width, target.height] = [picture.width, picture.height];
    target.getContext('2d')!.drawImage(picture, 0, 0);
    picture.close();
  },
);
watch(() => [store.effect, props.stepId], later);
</script>

<template>
  <canvas
    ref="canvas"
    :style="{ width: `${SIZE}px`, height: `${SIZE}px` }"
    role="img"
    :aria-label="`After ${name}`"
  ></canvas>
</template>

<style scoped>
canvas {
  background: var(--deep);
  border-radius: 3px;
}
</style>
