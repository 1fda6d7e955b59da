<script setup lang="ts">
import { listed, type Curve, type Key } from '@jinx/core/document';
import { message } from 'ant-design-vue';
import { placeOnLife } from '@jinx/core/maths';
import { computed, ref } from 'vue';
import { useEffectStore } from '../../../stores/effect';
import { copiedKeys } from '../../values/copied';
import {
  actOn,
  easeKeys,
  flipKeys,
  inOrder,
  keysMeant,
  moveKeys,
  withKeyAt,
  withoutKeys,
  withPasted,
  type Bounds,
  type Ease,
  type KeyIds,
} from './curveEdit';
import { CurveScale, lineThrough } from './curveScale';
import { freeSpot } from '../freeSpot';
import KeyTool from './KeyTool.vue';
import { useCurveDrags } from './useCurveDrags';

/** A curve over a particle's age. Keys are pulled alone or together, boxed, stretched and raised, added by a double click and taken by Delete. */
const props = withDefaults(
  defineProps<{
    curve: Curve;
    width: number;
    height: number;
    life: number;
    label: string;
    isDashed?: boolean;
    /** What keys may say, in what unit; a share is written in percent. */
    least?: number;
    most?: number;
    unit?: string;
    /** Other curves on the same scale. */
    beside?: readonly Curve[];
  }>(),
  { least: 0, most: 1e5, unit: '%', beside: () => [] },
);
const emit = defineEmits<{ change: [curve: Curve, gesture: string | null]; done: [] }>();
const store = useEffectStore();
const svg = ref<SVGSVGElement>();
const chosen = ref<KeyIds>(new Set());
const SLOPE_ARM = 46;
const TOOL = { width: 226, height: 24 };
const scale = computed(() => new CurveScale([props.curve, ...props.beside], props.width, props.height));
const bounds = computed((): Bounds => ({ life: props.life, least: props.least, most: props.most }));
const keys = computed(() =>
  listed(props.curve.keys).map(({ id, item }) => {
    const age = placeOnLife(item.at, props.life);
    return { id, key: item, age, x: scale.value.x(age), y: scale.value.y(item.value) };
  }),
);
const line = computed(() => lineThrough(scale.value.points(props.curve, props.life)));
const onesChosen = computed(() => keys.value.filter(({ id }) => chosen.value.has(id)));
const only = computed(() => (onesChosen.value.length === 1 ? onesChosen.value[0]! : null));
/** The box about several chosen keys, by whose edges they are stretched and raised. */
const group = computed(() => {
  if (onesChosen.value.length < 2) return null;
  const [xs, ys] = [onesChosen.value.map(({ x }) => x), onesChosen.value.map(({ y }) => y)];
  return { left: Math.min(...xs), right: Math.max(...xs), top: Math.min(...ys), bottom: Math.max(...ys) };
});

/** Where the fields of the only chosen key stand: over no key. */
const toolSpot = computed(() => freeSpot(TOOL, props, keys.value, only.value!.x));

const change = (curve: Curve, gesture: string | null = null) => emit('change', curve, gesture);
const drags = useCurveDrags({
  svg,
  scale,
  chosen,
  curve: () => props.curve,
  bounds: () => bounds.value,
  change,
  done: () => emit('done'),
});
const { boxed } = drags;

function add(event: MouseEvent): void {
  const { x, y } = drags.pointOf(event);
  const id = store.newId();
  change(withKeyAt(props.curve, id, scale.value.age(x), scale.value.value(y), bounds.value));
  chosen.value = new Set([id]);
}
function remove(): void {
  change(withoutKeys(props.curve, chosen.value));
  chosen.value = new Set();
}
const ease = (to: Ease) =>
  change(actOn(props.curve, chosen.value, (ids) => easeKeys(props.curve, ids, to, props.life)));
const flip = () => change(flipKeys(props.curve, keysMeant(props.curve, chosen.value, 2), props.life));
const copy = () => {
  const ids = keysMeant(props.curve, chosen.value);
  copiedKeys.value = listed(props.curve.keys).flatMap(({ id, item }) => (ids.has(id) ? [item] : []));
  const count = copiedKeys.value.length;
  void message.success({
    content: `${count} ${count === 1 ? 'key' : 'keys'} copied. Ctrl V on any curve pastes them.`,
    key: 'copied',
  });
};
function paste(): void {
  if (copiedKeys.value.length === 0) return;
  const pasted = withPasted(props.curve, copiedKeys.value, store.newId, bounds.value);
  change(pasted.curve);
  chosen.value = pasted.ids;
  void message.success({
    content: `${pasted.ids.size} ${pasted.ids.size === 1 ? 'key' : 'keys'} pasted.`,
    key: 'copied',
  });
}
/** A key half-way to the next. */
function insertAfter(id: string): void {
  const n = keys.value.findIndex((key) => key.id === id);
  const next = keys.value[n + 1] ?? keys.value[n - 1];
  if (!next) return;
  const made = store.newId();
  change(withKeyAt(props.curve, made, (keys.value[n]!.age + next.age) / 2, null, bounds.value));
  chosen.value = new Set([made]);
}
defineExpose({ ease, flip, copy, paste });

function keyDown(event: KeyboardEvent, id: string): void {
  if (!chosen.value.has(id)) chosen.value = new Set([id]);
  const step = event.shiftKey ? 0.05 : 0.01;
  const rise = step * (scale.value.high - scale.value.low);
  const moves: Record<string, readonly [number, number]> = {
    ArrowLeft: [-step, 0],
    ArrowRight: [step, 0],
    ArrowUp: [0, rise],
    ArrowDown: [0, -rise],
  };
  const commands: Record<string, () => void> = {
    a: () => (chosen.value = new Set(props.curve.keys.order)),
    c: copy,
    v: paste,
  };
  const alone: Record<string, () => void> = {
    Delete: remove,
    Backspace: remove,
    Insert: () => insertAfter(id),
    Escape: () => (chosen.value = new Set()),
    s: () => ease('smooth'),
    p: () => ease('sharp'),
    h: () => ease('held'),
    f: flip,
  };
  const act = (event.ctrlKey || event.metaKey ? commands : alone)[event.key];
  const move = moves[event.key];
  if (move) change(moveKeys(props.curve, chosen.value, ...move, bounds.value), `keys ${[...chosen.value].join()}`);
  else if (act) act();
  else return;
  event.preventDefault();
  event.stopPropagation();
}
const setKey = (key: Key) => {
  const { order, byId } = props.curve.keys;
  change(inOrder({ keys: { order, byId: { ...byId, [only.value!.id]: key } } }, props.life));
};
/** Where the arm of the only chosen key's slope ends, on either side. */
function armEnd(side: 'slopeIn' | 'slopeOut'): { x: number; y: number } {
  const { key, x, y } = only.value!;
  const steep = scale.value.steepness(key[side]);
  const arm = (side === 'slopeOut' ? SLOPE_ARM : -SLOPE_ARM) / Math.hypot(1, steep);
  return { x: x + arm, y: y - arm * steep };
}
const SIDES = ['slopeIn', 'slopeOut'] as const;
const valueText = (value: number) =>
  props.unit === '%' ? `${Math.round(value * 100)}%` : `${Number(value.toPrecision(4))} ${props.unit}`;
</script>

<template>
  <div class="editor">
    <svg ref="svg" :width="width" :height="height" role="group" :aria-label="`${label} over age`" @dblclick="add">
      <title>Double click adds a key</title>
      <rect class="ground" :width="width" :height="height" @pointerdown="drags.box" />
      <line v-if="scale.low < 0" class="zero" x1="0" :x2="width" :y1="scale.y(0)" :y2="scale.y(0)" />
      <slot :scale="scale"></slot>
      <path :d="line" class="curve" :class="{ dashed: isDashed }" />
      <template v-if="group">
        <rect
          class="group"
          :x="group.left - 8"
          :y="group.top - 8"
          :width="group.right - group.left + 16"
          :height="group.bottom - group.top + 16"
        />
        <rect
          v-for="edge in ['left', 'right'] as const"
          :key="edge"
          class="edge across"
          :x="edge === 'left' ? group.left - 12 : group.right + 4"
          :y="(group.top + group.bottom) / 2 - 9"
          width="8"
          height="18"
          @pointerdown="drags.stretch($event, group[edge], edge === 'left' ? group.right : group.left)"
        >
          <title>Stretch these keys along the ruler</title>
        </rect>
        <rect
          class="edge up"
          :x="(group.left + group.right) / 2 - 9"
          :y="Math.max(0, group.top - 12)"
          width="18"
          height="8"
          @pointerdown="drags.raise($event, group.top)"
        >
          <title>Make these keys higher or lower</title>
        </rect>
      </template>
      <template v-if="only && !only.key.held">
        <template v-for="side in SIDES" :key="side">
          <line class="arm" :x1="only.x" :y1="only.y" :x2="armEnd(side).x" :y2="armEnd(side).y" />
          <circle
            class="hand"
            r="4.5"
            :cx="armEnd(side).x"
            :cy="armEnd(side).y"
            @pointerdown="drags.turn($event, only.id, side)"
          />
        </template>
      </template>
      <g
        v-for="{ id, key, age, x, y } in keys"
        :key="id"
        class="key"
        :class="{ on: chosen.has(id) }"
        tabindex="0"
        role="button"
        :aria-pressed="chosen.has(id)"
        :aria-label="`key at ${Math.round(age * 100)}%, value ${valueText(key.value)}`"
        :transform="`translate(${Math.min(width - 5, Math.max(5, x))} ${y})`"
        @pointerdown="drags.pullKey($event, id)"
        @focus="chosen.has(id) || (chosen = new Set([id]))"
        @keydown="keyDown($event, id)"
      >
        <path v-if="key.held" d="M-5 -4.5H5V0H0V4.5H-5Z" />
        <rect v-else-if="key.at.anchor === 'share'" x="-4.5" y="-4.5" width="9" height="9" />
        <circle v-else r="5" />
      </g>
      <rect v-if="boxed" class="boxed" v-bind="boxed" />
    </svg>
    <KeyTool
      v-if="only"
      :key-of="only.key"
      :x="only.age"
      :life="life"
      :unit="unit"
      :least="least"
      :most="most"
      class="tool"
      :style="{ left: `${toolSpot.x}px`, top: `${toolSpot.y}px` }"
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
.zero {
  stroke: #55555a;
  stroke-dasharray: 2 3;
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
.key > * {
  fill: #161617;
  stroke: var(--accent);
  stroke-width: 1.5;
}
.key.on > * {
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
.group {
  fill: none;
  stroke: #8a8a8e;
  stroke-dasharray: 3 3;
  pointer-events: none;
}
.edge {
  fill: #3a3a3e;
  stroke: #c9c9cc;
}
.edge:hover {
  fill: var(--accent);
}
.across {
  cursor: ew-resize;
}
.up {
  cursor: ns-resize;
}
.boxed {
  fill: #dfe87522;
  stroke: var(--accent);
  pointer-events: none;
}
.tool {
  position: absolute;
}
</style>
