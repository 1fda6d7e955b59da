<script setup lang="ts">
import { ownNumbersAt } from '@jinx/core/checks';
import type { FilmSample } from '@jinx/stage';
import { computed, inject, onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { answered } from '../../engine/questions';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import { hexOfLinear } from '@jinx/core/maths';
import { useLayer } from '../life';
import { PAD, readable } from './layout';

/** Small pictures of one particle at successive ages, drawn by the stage with the layer's own look. */
const props = defineProps<{ layerId: string; width: number; height: number }>();
const PICTURES = 12;
/** Pixels of a picture as the stage draws it. */
const SIZE = 48;
/** Asked for a little after the last change, so that a drag asks seldom. */
const WAIT_MILLISECONDS = 320;
const AGAIN_MILLISECONDS = 700;
const engine = inject(ENGINE)!;
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
/** The particle at each age: a faint layer is shown as opaque as it can be read. */
function film(): FilmSample[] {
  const densest = Math.max(1e-9, ...samples.value.map(({ opacity }) => opacity));
  const own = ownNumbersAt(
    store.effect!,
    props.layerId,
    samples.value.map(({ age }) => age),
  );
  return samples.value.map(({ age, rgb, intensity, opacity }, n) => ({
    age,
    seconds: age * lifetimes.value[1],
    colour: [rgb[0] * intensity, rgb[1] * intensity, rgb[2] * intensity, readable(opacity, densest)],
    own: own[n]!,
  }));
}

let strip: HTMLCanvasElement | null = null;
let timer = 0;
let isGone = false;
async function ask(): Promise<void> {
  const answer = await answered(engine.film(layer.value.salt, film(), SIZE));
  if (isGone || !answer) return;
  const { rgba, size } = answer;
  // A layer that was just chosen or made may not be drawn yet.
  if (size === 0 && layer.value.drawn.kind !== 'light')
    timer = window.setTimeout(() => void ask(), AGAIN_MILLISECONDS);
  strip = null;
  if (size > 0) {
    strip = document.createElement('canvas');
    [strip.width, strip.height] = [rgba.length / (4 * size), size];
    strip.getContext('2d')!.putImageData(new ImageData(new Uint8ClampedArray(rgba), strip.width, size), 0, 0);
  }
  draw();
}
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
const later = () => {
  window.clearTimeout(timer);
  timer = window.setTimeout(() => void ask(), WAIT_MILLISECONDS);
};
/** Asked for anew when the particle, or its look, is another: most edits of an effect are of neither. */
watch([samples, layer, () => store.effect!.looks, palette], later);
watch(frames, draw, { flush: 'post' });
onMounted(() => {
  draw();
  later();
});
onBeforeUnmount(() => {
  isGone = true;
  window.clearTimeout(timer);
});
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
