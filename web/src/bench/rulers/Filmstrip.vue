<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { hexOfLinear } from '@jinx/core/maths';
import { useLayer } from '../values/life';
import { particleSamples, useParticlePictures } from '../values/particlePictures';
import { PAD, readable } from './layout';

/** Small pictures of one particle at successive ages, drawn by the stage with the layer's own look. */
const props = defineProps<{ layerId: string; width: number; height: number }>();
const PICTURES = 12;
/** Pixels of a picture as the stage draws it. */
const SIZE = 48;
const store = useEffectStore();
const canvas = ref<HTMLCanvasElement>();
const { layer, life, lifetimes, palette } = useLayer(() => props.layerId);
const samples = life(PICTURES);

/** Where each picture stands, and how large the particle is there. */
const frames = computed(() => {
  const largest = Math.max(1e-9, ...samples.value.map(({ size }) => size));
  const room = Math.min(props.height, (props.width - 2 * PAD) / PICTURES);
  return samples.value.map(({ age, size }) => ({
    x: PAD + age * (props.width - 2 * PAD),
    side: Math.max(2, (size / largest) * room),
  }));
});
let strip: ImageBitmap | null = null;
const { later } = useParticlePictures(
  () => {
    if (layer.value.drawn.kind === 'light') return null;
    const life = samples.value;
    // A faint layer is shown as opaque as it can be read.
    const densest = Math.max(1e-9, ...life.map(({ opacity }) => opacity));
    const seen = particleSamples(store.effect!, props.layerId, life, lifetimes.value[1], ({ opacity }) =>
      readable(opacity, densest),
    );
    return { salt: layer.value.salt, step: null, samples: seen, size: SIZE };
  },
  (pictures) => {
    strip?.close();
    strip = pictures;
    draw();
  },
);
/** What the stage does not draw by its look, such as a light, is shown as soft dots. */
function dotsInto(context: CanvasRenderingContext2D): void {
  frames.value.forEach(({ x, side }, n) => {
    const { rgb, opacity } = samples.value[n]!;
    const middle = props.height / 2;
    const soft = context.createRadialGradient(x, middle, 0, x, middle, side / 2);
    soft.addColorStop(0, hexOfLinear([...rgb]));
    soft.addColorStop(1, '#0000');
    context.globalAlpha = opacity;
    context.fillStyle = soft;
    context.fillRect(x - side / 2, middle - side / 2, side, side);
  });
}
function draw(): void {
  const target = canvas.value;
  if (!target) return;
  const density = Math.min(2, window.devicePixelRatio);
  [target.width, target.height] = [Math.round(props.width * density), Math.round(props.height * density)];
  const context = target.getContext('2d')!;
  context.scale(density, density);
  if (!strip) return dotsInto(context);
  // Pictures lie on the stage's dark: where they overlap, the brighter one is seen.
  context.globalCompositeOperation = 'lighten';
  frames.value.forEach(({ x, side }, n) =>
    context.drawImage(strip!, n * SIZE, 0, SIZE, SIZE, x - side / 2, (props.height - side) / 2, side, side),
  );
}
/** Asked for anew when the particle, or its look, is another: most edits of an effect are of neither. */
watch([samples, layer, () => store.effect!.looks, palette], later);
watch(frames, draw, { flush: 'post' });
onMounted(draw);
</script>

<template>
  <canvas ref="canvas" :style="{ width: `${width}px`, height: `${height}px` }" data-film></canvas>
</template>

<style scoped>
canvas {
  display: block;
  background: #0b0b0c;
}
</style>
