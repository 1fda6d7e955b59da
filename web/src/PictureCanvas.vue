<script setup lang="ts">
import { onMounted, ref, watch } from 'vue';

/** Shows a picture that the stage has drawn. */
const props = defineProps<{ picture: ImageBitmap }>();
const canvas = ref<HTMLCanvasElement>();
function draw(): void {
  const { width, height } = props.picture;
  Object.assign(canvas.value!, { width, height });
  canvas.value!.getContext('2d')!.drawImage(props.picture, 0, 0);
}
onMounted(draw);
watch(() => props.picture, draw);
</script>

<template>
  <canvas ref="canvas"></canvas>
</template>
