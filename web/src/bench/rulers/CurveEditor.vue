<script setup lang="ts">
import { listed, withItem, withoutItem, type Curve, type Key } from '@jinx/core/document';
import { curveAt, fitToLife, placeOnLife, readyCurve } from '@jinx/core/maths';
import { computed, ref } from 'vue';
import KeyTool from './KeyTool.vue';
import { placed, tidy } from './keyPlaces';

/** A curve over a particle's age: keys pulled, slopes turned, keys added by a double click and taken by Delete. */
const props = defineProps<{
  curve: Curve;
  width: number;
  height: number;
  life: number;
  label: string;
  isDashed?: boolean;
}>();
const emit = defineEmits<{ change: [curve: Curve, gesture: string | null]; done: [] }>();
const MARGIN = 9;
const HANDLE = 46;
const svg = ref<SVGSVGElement>();
const selected = ref('');

const keys = computed(() =>
  listed(props.curve.keys).map(({ id, item }) => ({ id, key: item, x: placeOnLife(item.at, props.life) })),
);
const top = computed(() => Math.max(1, ...keys.value.map(({ key }) => key.value)) * 1.04);
const px = (x: number) => x * props.width;
const py = (y: number) => props.height - MARGIN - (y / top.value) * (props.height - 2 * MARGIN);
const line = computed(() => {
  const ready = readyCurve(props.curve);
  fitToLife(ready, props.life);
  return Array.from(
    { length: 161 },
    (_, i) => `${i ? 'L' : 'M'}${px(i / 160).toFixed(1)} ${py(curveAt(ready, i / 160)).toFixed(1)}`,
  ).join('');
});
const chosen = computed(() => keys.value.find(({ id }) => id === selected.value));

function pointAt(event: MouseEvent): { x: number; y: number } {
  const box = svg.value!.getBoundingClientRect();
  return {
    x: Math.min(1, Math.max(0, (event.clientX - box.left) / props.width)),
    y: Math.max(0, ((props.height - MARGIN - (event.clientY - box.top)) / (props.height - 2 * MARGIN)) * top.value),
  };
}
function withKey(id: string, key: Key): Curve {
  return { keys: { order: props.curve.keys.order, byId: { ...props.curve.keys.byId, [id]: key } } };
}
/** Keys in order of place, so that the curve never folds back. */
function sorted(curve: Curve): Curve {
  const order = [...curve.keys.order].sort(
    (a, b) => placeOnLife(curve.keys.byId[a]!.at, props.life) - placeOnLife(curve.keys.byId[b]!.at, props.life),
  );
  return { keys: { order, byId: curve.keys.byId } };
}

function pull(event: PointerEvent, id: string): void {
  event.preventDefault();
  selected.value = id;
  const target = event.currentTarget as SVGElement;
  target.setPointerCapture(event.pointerId);
  target.focus();
  target.onpointermove = (move) => {
    const { x, y } = pointAt(move);
    const key = props.curve.keys.byId[id]!;
    emit(
      'change',
      sorted(withKey(id, { ...key, at: placed(key.at.anchor, x, props.life), value: tidy(Math.min(1e5, y)) })),
      `key ${id}`,
    );
  };
  target.onpointerup = target.onpointercancel = () => {
    target.onpointermove = null;
    emit('done');
  };
}

function slopeEnd(slope: number, direction: 1 | -1): { x: number; y: number } {
  const { key, x } = chosen.value!;
  const scale = ((props.height - 2 * MARGIN) / top.value / props.width) * slope;
  const length = Math.hypot(1, scale);
  return { x: px(x) + (direction * HANDLE) / length, y: py(key.value) - (direction * HANDLE * scale) / length };
}
function turn(event: PointerEvent, side: 'slopeIn' | 'slopeOut'): void {
  event.preventDefault();
  const { id } = chosen.value!;
  const target = event.currentTarget as SVGElement;
  target.setPointerCapture(event.pointerId);
  target.onpointermove = (move) => {
    const box = svg.value!.getBoundingClientRect();
    const { key, x } = keys.value.find((entry) => entry.id === id)!;
    const direction = side === 'slopeOut' ? 1 : -1;
    const dx = Math.max(3, direction * (move.clientX - box.left - px(x))) / props.width;
    const dy = ((-direction * (move.clientY - box.top - py(key.value))) / (props.height - 2 * MARGIN)) * top.value;
    const slope = tidy(dy / dx);
    emit(
      'change',
      withKey(id, move.altKey ? { ...key, [side]: slope } : { ...key, slopeIn: slope, slopeOut: slope }),
      `slope ${id}`,
    );
  };
  target.onpointerup = target.onpointercancel = () => {
    target.onpointermove = null;
    emit('done');
  };
}
function add(event: MouseEvent): void {
  const { x, y } = pointAt(event);
  const id = `n${Date.now().toString(36)}`;
  const ready = readyCurve(props.curve);
  fitToLife(ready, props.life);
  const slope = tidy((curveAt(ready, Math.min(1, x + 0.01)) - curveAt(ready, Math.max(0, x - 0.01))) / 0.02);
  selected.value = id;
  emit(
    'change',
    sorted({
      keys: withItem(props.curve.keys, id, {
        at: { anchor: 'share', value: tidy(x) },
        value: tidy(y),
        slopeIn: slope,
        slopeOut: slope,
      }),
    }),
    null,
  );
}
function remove(id: string): void {
  if (props.curve.keys.order.length <= 1) return;
  emit('change', { keys: withoutItem(props.curve.keys, id) }, null);
}
function keyDown(event: KeyboardEvent, id: string): void {
  const key = props.curve.keys.byId[id]!;
  const x = placeOnLife(key.at, props.life);
  const step = event.shiftKey ? 0.05 : 0.01;
  const moves: Record<string, [number, number]> = {
    ArrowLeft: [-step, 0],
    ArrowRight: [step, 0],
    ArrowUp: [0, step],
    ArrowDown: [0, -step],
  };
  if (event.key === 'Delete' || event.key === 'Backspace') remove(id);
  else if (moves[event.key]) {
    const [dx, dy] = moves[event.key]!;
    emit(
      'change',
      sorted(
        withKey(id, {
          ...key,
          at: dx ? placed(key.at.anchor, Math.min(1, Math.max(0, x + dx)), props.life) : key.at,
          value: tidy(Math.max(0, key.value + dy * top.value)),
        }),
      ),
      `key ${id}`,
    );
  } else return;
  event.preventDefault();
  event.stopPropagation();
}
/** Takes what the key's own fields say of it. */
const setKey = (key: Key) => emit('change', sorted(withKey(selected.value, key)), null);
</script>

<template>
  <div class="editor">
    <svg
      ref="svg"
      :width="width"
      :height="height"
      role="group"
      :aria-label="`${label} over age`"
      @dblclick="add"
      @pointerdown.self="selected = ''"
    >
      <rect class="ground" :width="width" :height="height" @pointerdown="selected = ''" />
      <path :d="line" class="curve" :class="{ dashed: isDashed }" />
      <template v-if="chosen">
        <template v-for="side in ['slopeIn', 'slopeOut'] as const" :key="side">
          <line
            class="arm"
            :x1="px(chosen.x)"
            :y1="py(chosen.key.value)"
            :x2="slopeEnd(chosen.key[side], side === 'slopeOut' ? 1 : -1).x"
            :y2="slopeEnd(chosen.key[side], side === 'slopeOut' ? 1 : -1).y"
          />
          <circle
            class="hand"
            r="4.5"
            :cx="slopeEnd(chosen.key[side], side === 'slopeOut' ? 1 : -1).x"
            :cy="slopeEnd(chosen.key[side], side === 'slopeOut' ? 1 : -1).y"
            @pointerdown.stop="turn($event, side)"
          />
        </template>
      </template>
      <g
        v-for="{ id, key, x } in keys"
        :key="id"
        class="key"
        :class="{ on: id === selected }"
        tabindex="0"
        role="button"
        :aria-label="`key at ${Math.round(x * 100)}%, value ${key.value}`"
        :transform="`translate(${Math.min(width - 5, Math.max(5, px(x)))} ${py(key.value)})`"
        @pointerdown.stop="pull($event, id)"
        @focus="selected = id"
        @keydown="keyDown($event, id)"
      >
        <rect v-if="key.at.anchor === 'share'" x="-4.5" y="-4.5" width="9" height="9" />
        <circle v-else r="5" />
      </g>
    </svg>
    <KeyTool
      v-if="chosen"
      :key-of="chosen.key"
      :x="chosen.x"
      :life="life"
      class="tool"
      :style="{
        left: `${Math.min(width - 226, Math.max(0, px(chosen.x) - 113))}px`,
        top: py(chosen.key.value) > 60 ? '2px' : `${height - 26}px`,
      }"
      @change="setKey"
    />
  </div>
</template>

<style scoped>
.editor {
  position: relative;
}
svg {
  display: block;
  overflow: visible;
  touch-action: none;
}
.ground {
  fill: transparent;
}
.curve {
  fill: none;
  stroke: var(--accent);
  stroke-width: 2;
  pointer-events: none;
}
.dashed {
  stroke: #fff;
  stroke-dasharray: 5 4;
}
.key {
  cursor: grab;
}
.key rect,
.key circle {
  fill: #161617;
  stroke: var(--accent);
  stroke-width: 1.5;
}
.key.on rect,
.key.on circle {
  fill: var(--accent);
}
.arm {
  stroke: #8a8a8e;
  pointer-events: none;
}
.hand {
  fill: #9a9a9e;
  cursor: grab;
}
.tool {
  position: absolute;
}
</style>
