<script setup lang="ts">
import { computed, inject } from 'vue';
import { ENGINE } from '../bench';
import { dragBy } from './dragBy';
import type { TimedMark } from './timedMarks';
import { snappedTime, STEP, useTimeView } from './timeView';

/**
 * Moments of a layer on the time sheet: its bursts and hits. Dragged to other times and stretches, with Ctrl a copy is
 * dragged away; the second of those that repeat is dragged to set how often.
 */
const props = defineProps<{ marks: readonly TimedMark[]; top: number; base: number; left: number; width: number }>();
const emit = defineEmits<{
  move: [mark: TimedMark, seconds: number, gesture: string | null];
  every: [mark: TimedMark, seconds: number, gesture: string | null];
  copy: [mark: TimedMark, seconds: number];
  remove: [mark: TimedMark];
  done: [];
}>();
const { clock, seconds: shown } = useTimeView();
const { state } = inject(ENGINE)!;
const SLACK = 3;

const x = (seconds: number) => props.left + Math.min(1, seconds / shown.value) * props.width;
const perPixel = computed(() => shown.value / Math.max(1, props.width));
const snaps = (own: TimedMark) => [
  clock.value.opening,
  clock.value.opening + clock.value.hold,
  state.sheetTime,
  ...props.marks.flatMap((mark) => (mark.id === own.id ? [] : [mark.seconds])),
];
const height = (mark: TimedMark) => Math.max(8, (props.base - props.top) * mark.share);

function pull(event: PointerEvent, mark: TimedMark, time: number): void {
  if (event.button !== 0) return;
  event.stopPropagation();
  const start = event.clientX;
  const from = mark.seconds + time * mark.every;
  let hasMoved = false;
  dragBy(
    event,
    ({ clientX, ctrlKey, metaKey, altKey }) => {
      const pixels = clientX - start;
      if (!hasMoved && Math.abs(pixels) < SLACK) return;
      if (!hasMoved && (ctrlKey || metaKey) && time === 0) emit('copy', mark, mark.seconds);
      hasMoved = true;
      const to = snappedTime(from + pixels * perPixel.value, altKey ? [] : snaps(mark), perPixel.value);
      if (time === 0) emit('move', mark, Math.max(0, to), `pull ${mark.id}`);
      else emit('every', mark, Math.max(0.01, (to - mark.seconds) / time), `pull ${mark.id}`);
    },
    () => emit('done'),
  );
}
function keyDown(event: KeyboardEvent, mark: TimedMark): void {
  const way = { ArrowLeft: -STEP, ArrowRight: STEP }[event.key];
  if (way !== undefined) {
    const by = event.shiftKey ? way * 10 : way;
    if (event.altKey && mark.times > 1) emit('every', mark, Math.max(0.01, mark.every + by), `walk ${mark.id}`);
    else emit('move', mark, Math.max(0, snappedTime(mark.seconds + by, [], 0)), `walk ${mark.id}`);
  } else if (event.key === 'Delete') emit('remove', mark);
  else if (event.key === 'd') emit('copy', mark, mark.seconds + 0.1);
  else return;
  event.preventDefault();
  event.stopPropagation();
}
</script>

<template>
  <g role="group" aria-label="Bursts and hits">
    <g v-for="mark in marks" :key="mark.id">
      <path
        v-for="time in mark.times - 1"
        :key="time"
        class="later"
        :class="{ pulls: time === 1 }"
        :d="`M${x(mark.seconds + time * mark.every)} ${base}v${-height(mark)}`"
        @pointerdown="time === 1 && pull($event, mark, 1)"
        @click.stop
      >
        <title v-if="time === 1">Every {{ mark.every }} s. Drag to set how often.</title>
      </path>
      <g
        class="mark"
        tabindex="0"
        role="button"
        :aria-label="`${mark.words}, at ${mark.seconds.toFixed(3)} s`"
        :transform="`translate(${x(mark.seconds)} ${base})`"
        @pointerdown="pull($event, mark, 0)"
        @click.stop
        @keydown="keyDown($event, mark)"
      >
        <rect x="-6" :y="-height(mark) - 6" width="12" :height="height(mark) + 6" fill="transparent" />
        <path class="stem" :d="`M0 0v${-height(mark)}`" />
        <path class="head" :d="`M-4 ${-height(mark) - 4}h8l-4 6z`" />
        <title>
          {{ mark.words }} at {{ mark.seconds.toFixed(3) }} s. Drag it, with Ctrl a copy; D copies, Delete removes.
        </title>
      </g>
    </g>
  </g>
</template>

<style scoped>
.mark {
  cursor: ew-resize;
  touch-action: none;
}
.mark:focus-visible {
  outline: 1px solid var(--accent);
}
.stem,
.later {
  stroke: var(--accent);
  stroke-width: 1.4;
}
.later {
  opacity: 0.55;
}
.pulls {
  opacity: 0.8;
  stroke-width: 3;
  cursor: ew-resize;
  touch-action: none;
}
.head {
  fill: var(--accent);
}
</style>
