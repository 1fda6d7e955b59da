<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { useEffectStore } from '../../stores/effect';
import PickCatch from './PickCatch.vue';
import { useProbe } from './probe';

/** A pixel of the stage under the glass: it is pressed, and moved with the arrow keys. */
const store = useEffectStore();
const probe = useProbe();

function put(x: number, y: number): void {
  const within = (share: number) => Math.min(0.9999, Math.max(0, share));
  probe.pixel = { x: within(x), y: within(y) };
  probe.isPicking = null;
  store.page = 'pixel';
}
function press(event: PointerEvent): void {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
  put((event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height);
}
const WAYS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
function nudge(event: KeyboardEvent): void {
  const way = WAYS[event.key];
  const { pixel } = probe;
  if (!way || !pixel) return;
  event.preventDefault();
  event.stopPropagation();
  const { width, height } = (event.currentTarget as HTMLElement).parentElement!.getBoundingClientRect();
  const far = event.shiftKey ? 10 : 1;
  put(pixel.x + (way[0] * far) / width, pixel.y + (way[1] * far) / height);
}
</script>

<template>
  <PickCatch
    v-if="probe.isPicking === 'pixel'"
    words="Press a pixel"
    help="Press a pixel to take it apart; Enter takes the middle, Escape ends that"
    @press="press"
    @middle="put(0.5, 0.5)"
    @end="probe.isPicking = null"
  />
  <Button
    v-if="probe.pixel && store.page === 'pixel'"
    type="text"
    class="mark"
    data-pixel
    :style="{ left: `${probe.pixel.x * 100}%`, top: `${probe.pixel.y * 100}%` }"
    aria-label="The pixel that is taken apart: the arrow keys move it, with Shift ten times as far"
    @keydown="nudge"
  ></Button>
</template>

<style scoped>
.mark {
  position: absolute;
  width: 15px;
  height: 15px;
  padding: 0;
  margin: -7.5px 0 0 -7.5px;
  background: none;
  border: 1.5px solid #f2f2f2;
  outline: 1px solid #101011;
  border-radius: 3px;
}
.mark:focus-visible {
  outline: 2px solid var(--accent);
}
</style>
