<script setup lang="ts">
import { computed, inject, onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { answered } from '../../engine/questions';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';

/** What the look has become after one of its steps, on one particle. */
const props = defineProps<{ stepId: string; name: string }>();
const SIZE = 44;
const engine = inject(ENGINE)!;
const store = useEffectStore();
const canvas = ref<HTMLCanvasElement>();
const salt = computed(() => store.chosen?.salt ?? 0);
let timer = 0;
let isGone = false;

/** Asked for a little after the last change, so that a drag asks seldom. */
const WAIT_MILLISECONDS = 360;
async function draw(): Promise<void> {
  const density = Math.min(2, window.devicePixelRatio);
  const answer = await answered(engine.stepPicture(salt.value, props.stepId, Math.round(SIZE * density)));
  const target = canvas.value;
  if (isGone || !target || !answer || answer.size === 0) return;
  const { rgba, size } = answer;
  target.width = target.height = size;
  target.getContext('2d')!.putImageData(new ImageData(new Uint8ClampedArray(rgba), size, size), 0, 0);
}
const ask = () => {
  window.clearTimeout(timer);
  timer = window.setTimeout(() => void draw(), WAIT_MILLISECONDS);
};
watch(() => [store.effect, props.stepId], ask);
onMounted(ask);
onBeforeUnmount(() => {
  isGone = true;
  window.clearTimeout(timer);
});
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
