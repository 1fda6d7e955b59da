<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { freeName, withItem } from '@jinx/core/document';
import { Vector3 } from 'three';
import { computed, shallowRef, watch } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { useCommands } from '../commands/registry';
import { onPlane, type Picture } from '../handles/picture';
import { plainNumber } from '../entry/numbers';
import PickCatch from '../reading/PickCatch.vue';
import { useProbe } from '../reading/probe';

/**
 * Measures from one click to another. A click close to a place that has a handle means that place; elsewhere it means the
 * plane through the first point, or through `beside`, that faces the camera.
 */
const props = defineProps<{
  picture: Picture | null;
  /** Places that a click close to them means. */
  places: readonly Vector3[];
  beside: Vector3 | null;
}>();
const store = useEffectStore();
const probe = useProbe();
const NEAR_PIXELS = 12;
const points = shallowRef<readonly Vector3[]>([]);

function take(x: number, y: number): void {
  const picture = props.picture;
  if (!picture) return;
  const near = props.places.find((place) => {
    const spot = picture.spot(place);
    return spot.isAhead && Math.hypot(spot.x - x, spot.y - y) <= NEAR_PIXELS;
  });
  const begun = points.value.length === 1 ? points.value[0]! : null;
  const through = begun ?? props.beside ?? new Vector3(0, 1, 0);
  const point = near ?? onPlane(picture.sight(x, y), through, picture.ahead);
  if (point) points.value = begun ? [begun, point] : [point];
}
function press(event: PointerEvent): void {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
  take(event.clientX - box.left, event.clientY - box.top);
}
const length = computed(() => {
  const [from, to] = points.value;
  return from && to ? Number(from.distanceTo(to).toFixed(3)) : null;
});
const line = computed(() => points.value.map((point) => props.picture!.spot(point)));
/** Makes a measure of what was found, which numbers can then be given. */
function name(): void {
  const metres = length.value!;
  store.change('name a length', (draft) => {
    const measure = { name: freeName(draft.measures, 'length'), quantity: 'length' as const, value: metres };
    draft.measures = withItem(draft.measures, store.newId(), measure);
  });
  store.page = 'effect';
  end();
}
function end(): void {
  points.value = [];
  probe.isPicking = null;
}
watch(
  () => probe.isPicking,
  (now) => now !== 'tape' && (points.value = []),
);
useCommands({ 'stage.tape': () => (probe.isPicking === 'tape' ? end() : void (probe.isPicking = 'tape')) });
</script>

<template>
  <template v-if="probe.isPicking === 'tape' && picture">
    <svg class="tape" aria-hidden="true">
      <template v-if="line.length === 2">
        <line class="casing" :x1="line[0]!.x" :y1="line[0]!.y" :x2="line[1]!.x" :y2="line[1]!.y" />
        <line class="line" :x1="line[0]!.x" :y1="line[0]!.y" :x2="line[1]!.x" :y2="line[1]!.y" />
      </template>
      <circle v-for="({ x, y }, n) in line" :key="n" :cx="x" :cy="y" r="4" />
    </svg>
    <PickCatch
      :words="length === null ? 'Click from one point to another' : ''"
      help="Click two points to measure between them; Enter takes the middle, Escape ends that"
      @press="press"
      @middle="take(picture.width / 2, picture.height / 2)"
      @end="end"
    />
    <div v-if="length !== null" class="found" role="status">
      <b class="number" data-tape>{{ plainNumber(length) }} m</b>
      <Button type="link" title="Makes a measure of it, which settings can take" @click="name"> name it </Button>
      <Button type="link" @click="points = []">measure another</Button>
      <Button type="link" @click="end">done</Button>
    </div>
  </template>
</template>

<style scoped>
.tape {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
.casing {
  stroke: #0c0c0d;
  stroke-width: 4;
  stroke-opacity: 0.6;
}
.line {
  stroke: var(--accent);
  stroke-width: 1.5;
  stroke-dasharray: 5 3;
}
circle {
  fill: #161617;
  stroke: var(--accent);
  stroke-width: 1.5;
}
.found {
  position: absolute;
  left: 50%;
  bottom: 84px;
  transform: translateX(-50%);
  display: flex;
  gap: 10px;
  align-items: baseline;
  background: #101011e6;
  padding: 3px 10px;
  border-radius: 4px;
}
</style>
