<script setup lang="ts">
import { formatAddress, listed, settingsOfLayer, type Key, type Setting } from '@jinx/core/document';
import { computed, inject } from 'vue';
import { useEffectStore } from '../../../stores/effect';
import { ENGINE } from '../../bench';
import { dragBy } from '../dragBy';
import { STEP, useTimeView } from '../timeView';

/** Keys of a layer's settings that are shaped by the effect's time: pressed to go there, dragged to other times, with Shift all of a curve together. */
const props = defineProps<{ layerId: string; y: number; left: number; width: number }>();
const store = useEffectStore();
const engine = inject(ENGINE)!;
const { clock, seconds: shown } = useTimeView();
const SLACK = 3;
const SIZE = 4;

interface TimedKey {
  /** Tells the setting and its shaper from others. */
  readonly curve: string;
  readonly name: string;
  readonly id: string;
  /** Share of the sheet. */
  readonly at: number;
}
/** The keys of each curve over effect time, by the curve's name: the very objects. */
function* curvesIn(effect: Parameters<typeof settingsOfLayer>[0]) {
  for (const { address, declaration, setting } of settingsOfLayer(effect, props.layerId))
    for (const { id, item } of listed((setting as Setting).shapers))
      if (item.reads.kind === 'effectTime' && item.mapping.kind === 'curve')
        yield { curve: `${formatAddress(address)} ${id}`, name: declaration.name, keys: item.mapping.curve.keys };
}
const keys = computed(() =>
  [...curvesIn(store.effect!)].flatMap(({ curve, name, keys: own }) =>
    listed(own).map(({ id, item }): TimedKey => ({ curve, name, id, at: item.at.value })),
  ),
);
const x = (share: number) => props.left + ((share * clock.value.length) / shown.value) * props.width;

/** Moves keys by seconds; none passes the sheet's ends, and they stay in the order of their times. */
function retime(key: TimedKey, isAll: boolean, by: number): void {
  store.change(
    'retime keys',
    (draft) => {
      const found = [...curvesIn(draft)].find(({ curve }) => curve === key.curve);
      if (!found) return;
      const moved = isAll ? found.keys.order : [key.id];
      const share = by / Math.max(STEP, clock.value.length);
      const places = moved.map((id) => found.keys.byId[id]!.at.value);
      const fit = Math.max(-Math.min(...places), Math.min(1 - Math.max(...places), share));
      for (const id of moved) {
        const { at }: Key = found.keys.byId[id]!;
        at.value = Number((at.value + fit).toFixed(5));
      }
      found.keys.order.sort((a, b) => found.keys.byId[a]!.at.value - found.keys.byId[b]!.at.value);
    },
    `retime ${key.curve} ${key.id}`,
  );
}
function pull(event: PointerEvent, key: TimedKey): void {
  if (event.button !== 0) return;
  event.stopPropagation();
  const start = event.clientX;
  let gone = 0;
  let hasMoved = false;
  dragBy(
    event,
    (move) => {
      const pixels = move.clientX - start;
      if (!hasMoved && Math.abs(pixels) < SLACK) return;
      hasMoved = true;
      const to = Math.round((pixels / props.width) * (shown.value / STEP)) * STEP;
      retime(key, move.shiftKey, to - gone);
      gone = to;
    },
    () =>
      hasMoved ? store.endGesture() : engine.playback.seekSheet(store.effect!.stretches, key.at * clock.value.length),
  );
}
function keyDown(event: KeyboardEvent, key: TimedKey): void {
  const sign = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
  if (sign) retime(key, event.shiftKey, sign * STEP);
  else if (event.key === 'Enter') engine.playback.seekSheet(store.effect!.stretches, key.at * clock.value.length);
  else return;
  event.preventDefault();
  event.stopPropagation();
}
</script>

<template>
  <g role="group" aria-label="Keys of settings">
    <circle
      v-for="key in keys"
      :key="`${key.curve} ${key.id}`"
      class="key"
      tabindex="0"
      role="button"
      :aria-label="`${key.name}, key at ${(key.at * clock.length).toFixed(2)} s`"
      :cx="x(key.at)"
      :cy="y"
      :r="SIZE"
      @pointerdown="pull($event, key)"
      @click.stop
      @keydown="keyDown($event, key)"
    >
      <title>
        {{ key.name }}: key at {{ (key.at * clock.length).toFixed(2) }} s. Drag it to another time, with Shift all of
        its curve.
      </title>
    </circle>
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
