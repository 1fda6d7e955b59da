<script setup lang="ts">
import { formatAddress, listed, placesOf, retimed, setPlace, withoutPlaceKey } from '@jinx/core/document';
import { inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import { keptComputed } from '../values/keptComputed';

/** Keys of a layer's places along the effect's time: pressed to go there, dragged to other times, with Shift all of a place together. */
const props = defineProps<{ layerId: string; y: number; left: number; width: number; seconds: number }>();
const store = useEffectStore();
const engine = inject(ENGINE)!;
const STEP = 1 / 60;
const SLACK = 3;
const SIZE = 5;

const keys = keptComputed(() =>
  placesOf(store.effect!, props.layerId).flatMap(({ address, name, place }) =>
    listed(place.keys).map(({ id, item }) => ({ address, name, place, id, at: item.at })),
  ),
);
type PlacedKey = (typeof keys.value)[number];
const x = (at: number) => props.left + Math.min(1, at / Math.max(0.001, props.seconds)) * props.width;
const idsOf = ({ place, id }: PlacedKey, isAll: boolean) => (isAll ? place.keys.order : [id]);

function retime(key: PlacedKey, isAll: boolean, seconds: number): void {
  store.change(
    'retime keys',
    (draft) => setPlace(draft, key.address, retimed(key.place, idsOf(key, isAll), seconds)),
    `retime ${key.id}`,
  );
}
function pull(event: PointerEvent, key: PlacedKey): void {
  if (event.button !== 0) return;
  event.stopPropagation();
  const target = event.currentTarget as SVGElement;
  target.setPointerCapture(event.pointerId);
  const start = event.clientX;
  let hasMoved = false;
  target.onpointermove = (move) => {
    const pixels = move.clientX - start;
    if (!hasMoved && Math.abs(pixels) < SLACK) return;
    hasMoved = true;
    const steps = Math.round(((pixels / props.width) * props.seconds) / STEP);
    retime(key, move.shiftKey, steps * STEP);
  };
  target.onpointerup = target.onpointercancel = () => {
    target.onpointermove = target.onpointerup = target.onpointercancel = null;
    if (hasMoved) store.endGesture();
    else engine.playback.seekSheet(store.effect!.stretches, key.at);
  };
}
function keyDown(event: KeyboardEvent, key: PlacedKey): void {
  const sign = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
  if (sign) retime(key, event.shiftKey, sign * STEP);
  else if (event.key === 'Delete')
    store.change('take a key away', (draft) => setPlace(draft, key.address, withoutPlaceKey(key.place, key.id)));
  else if (event.key === 'Enter') engine.playback.seekSheet(store.effect!.stretches, key.at);
  else return;
  event.preventDefault();
  event.stopPropagation();
}
</script>

<template>
  <g role="group" aria-label="Keys of places">
    <path
      v-for="key in keys"
      :key="`${formatAddress(key.address)} ${key.id}`"
      class="key"
      tabindex="0"
      role="button"
      :aria-label="`${key.name}, key at ${key.at} s`"
      :transform="`translate(${x(key.at)} ${y})`"
      :d="`M0 ${-SIZE}L${SIZE} 0L0 ${SIZE}L${-SIZE} 0Z`"
      @pointerdown="pull($event, key)"
      @click.stop
      @keydown="keyDown($event, key)"
    >
      <title>{{ key.name }}: key at {{ key.at }} s. Drag it to another time, with Shift all of them.</title>
    </path>
  </g>
</template>

<style scoped>
.key {
  fill: #161617;
  stroke: #e4e4e6;
  stroke-width: 1.4;
  cursor: ew-resize;
  touch-action: none;
}
.key:hover {
  stroke: var(--accent);
}
</style>
