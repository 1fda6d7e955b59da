<script setup lang="ts">
import { atBorder, type Layer } from '@jinx/core/document';
import { windowOf } from '@jinx/core/simulation';
import { inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import { keptComputed } from '../values/keptComputed';
import { dragBy } from './dragBy';
import { snappedTime, STEP, useTimeView } from './timeView';

/** Both ends of the time in which a layer's births may happen, dragged along the time sheet; each keeps what it counts from. */
const props = defineProps<{
  layerId: string;
  layer: Layer;
  top: number;
  base: number;
  left: number;
  width: number;
}>();
const store = useEffectStore();
const { clock, seconds: shown } = useTimeView();
const { state } = inject(ENGINE)!;
const SLACK = 3;

const ends = keptComputed(() => {
  const { from, until } = windowOf(props.layer, store.effect!, clock.value);
  const last = clock.value.opening + clock.value.hold + (clock.value.hold > 0 ? 0 : clock.value.closing);
  return [
    { name: 'from' as const, word: 'Births begin', seconds: Math.max(0, from) },
    { name: 'until' as const, word: 'Births end', seconds: until === Infinity ? last : until },
  ];
});
type End = (typeof ends.value)[number];
const x = (seconds: number) => props.left + Math.min(1, Math.max(0, seconds / shown.value)) * props.width;

/** Moves an end by seconds; births without an end get one, counted from where it is let go. */
function move(end: End, to: number, gesture: string): void {
  const { layerId } = props;
  store.changeLayer(
    end.name === 'from' ? 'set when births begin' : 'set when births end',
    ({ births }) => {
      const now = windowOf({ ...props.layer, births }, store.effect!, clock.value)[end.name];
      if (end.name === 'until' && !births.until)
        births.until = { ...atBorder('letGo'), seconds: to - (clock.value.opening + clock.value.hold) };
      else {
        const moment = end.name === 'from' ? births.from : births.until!;
        // A measured moment is counted in seconds from here on: the measure itself is others' too.
        const seconds = moment.measure ? to - now : moment.seconds + to - now;
        Object.assign(moment, { seconds: Number(seconds.toFixed(4)), measure: null });
      }
    },
    `${gesture} ${end.name}`,
    layerId,
  );
}
function pull(event: PointerEvent, end: End): void {
  if (event.button !== 0) return;
  event.stopPropagation();
  const perPixel = shown.value / Math.max(1, props.width);
  const start = event.clientX;
  const from = end.seconds;
  let hasMoved = false;
  dragBy(
    event,
    ({ clientX, altKey }) => {
      if (!hasMoved && Math.abs(clientX - start) < SLACK) return;
      hasMoved = true;
      const { opening, hold } = clock.value;
      const snaps = altKey ? [] : [0, opening, opening + hold, state.sheetTime];
      move(end, snappedTime(Math.max(0, from + (clientX - start) * perPixel), snaps, perPixel), 'pull');
    },
    () => store.endGesture(),
  );
}
function keyDown(event: KeyboardEvent, end: End): void {
  const way = { ArrowLeft: -STEP, ArrowRight: STEP }[event.key];
  if (way === undefined) return;
  event.preventDefault();
  event.stopPropagation();
  move(end, snappedTime(Math.max(0, end.seconds + way * (event.shiftKey ? 10 : 1)), [], 0), 'walk');
}
</script>

<template>
  <g>
    <g
      v-for="end in ends"
      :key="end.name"
      class="end"
      tabindex="0"
      role="slider"
      :aria-label="`${end.word} at`"
      :aria-valuenow="end.seconds"
      :aria-valuetext="`${end.seconds.toFixed(3)} s`"
      :data-end="end.name"
      :transform="`translate(${x(end.seconds)} 0)`"
      @pointerdown="pull($event, end)"
      @click.stop
      @keydown="keyDown($event, end)"
    >
      <rect x="-5" :y="top" width="10" :height="base - top" fill="transparent" />
      <path :d="end.name === 'from' ? `M4 ${base}H0V${base - 14}H4` : `M-4 ${base}H0V${base - 14}H-4`" />
      <title>{{ end.word }} at {{ end.seconds.toFixed(3) }} s. Drag it.</title>
    </g>
  </g>
</template>

<style scoped>
.end {
  cursor: ew-resize;
  touch-action: none;
}
.end path {
  fill: none;
  stroke: #b4b4b8;
  stroke-width: 1.6;
}
.end:hover path,
.end:focus-visible path {
  stroke: var(--accent);
}
</style>
