<script setup lang="ts">
import { listed, withoutItem, type Collection, type Colour, type Stop } from '@jinx/core/document';
import { gradientInto, hexOfLinear, placeOnLife, readyGradient } from '@jinx/core/maths';
import { computed, ref } from 'vue';
import { useEffectStore } from '../../../stores/effect';
import { cssOf, opacityAt, withStopAt } from '../../values/colour';
import ColourWords from '../../chips/ColourWords.vue';
import PlainChip from '../../chips/PlainChip.vue';
import { dragBy } from '../dragBy';
import { tidy } from '../keyPlaces';
import KeyPlaceFields from './KeyPlaceFields.vue';

/** Colour over age: stops pulled along the bar, added by a double click, taken by Delete. */
const props = defineProps<{
  stops: Collection<Stop>;
  width: number;
  life: number;
  label?: string;
  /** What stands at its beginning and at its end, where that is no age. */
  ends?: readonly [string, string] | null;
}>();
const emit = defineEmits<{ change: [stops: Collection<Stop>, gesture: string | null]; done: [] }>();
const store = useEffectStore();
const palette = computed(() => store.effect!.palette);
const bar = ref<HTMLElement>();
const selected = ref('');
const items = computed(() =>
  listed(props.stops)
    .map(({ id, item }) => ({
      id,
      stop: item,
      x: placeOnLife(item.at, props.life),
      css: cssOf(item.colour, store.effect!),
    }))
    .sort((a, b) => a.x - b.x),
);
/** Blended in linear light, as the simulation does: the browser's own blend would show other colours between stops. */
const background = computed(() => {
  const gradient = readyGradient(props.stops, palette.value);
  const rgb = new Float64Array(3);
  const colours = Array.from({ length: 33 }, (_, i) => {
    gradientInto(gradient, i / 32, props.life, rgb);
    const percent = Math.round(opacityAt(props.stops, i / 32, props.life) * 100);
    const alpha = Math.round(percent * 2.55)
      .toString(16)
      .padStart(2, '0');
    return `${hexOfLinear([...rgb])}${alpha}`;
  });
  return `linear-gradient(to right, ${colours.join(', ')})`;
});
const chosen = computed(() => items.value.find(({ id }) => id === selected.value));

const set = (id: string, stop: Stop, gesture: string | null) =>
  emit('change', { order: props.stops.order, byId: { ...props.stops.byId, [id]: stop } }, gesture);
const shareAt = (event: MouseEvent) => {
  const box = bar.value!.getBoundingClientRect();
  return Math.min(1, Math.max(0, tidy((event.clientX - box.left) / box.width)));
};
function pull(event: PointerEvent, id: string): void {
  selected.value = id;
  dragBy(
    event,
    (move) => set(id, { ...props.stops.byId[id]!, at: { anchor: 'share', value: shareAt(move) } }, `stop ${id}`),
    () => emit('done'),
  );
}
function add(event: MouseEvent): void {
  const x = shareAt(event);
  const id = store.newId();
  selected.value = id;
  emit('change', withStopAt(props.stops, id, x, props.life, store.effect!.palette), null);
}
function keyDown(event: KeyboardEvent, id: string): void {
  const stop = props.stops.byId[id]!;
  const step = event.shiftKey ? 0.05 : 0.01;
  if (event.key === 'Delete' || event.key === 'Backspace') {
    if (props.stops.order.length > 1) emit('change', withoutItem(props.stops, id), null);
  } else if (event.key === 'ArrowLeft' || event.key === 'ArrowRight')
    set(
      id,
      {
        ...stop,
        at: {
          anchor: 'share',
          value: Math.min(
            1,
            Math.max(0, placeOnLife(stop.at, props.life) + (event.key === 'ArrowLeft' ? -step : step)),
          ),
        },
      },
      `stop ${id}`,
    );
  else return;
  event.preventDefault();
  event.stopPropagation();
}
const recolour = (colour: Colour, isDrag: boolean) =>
  set(
    selected.value,
    { ...props.stops.byId[selected.value]!, colour },
    isDrag ? `stop colour ${selected.value}` : null,
  );
/** A stop that is opaque says nothing of it. */
function fade(percent: number, gesture: string | null): void {
  const stop = { ...props.stops.byId[selected.value]! };
  delete stop.opacity;
  set(
    selected.value,
    percent === 100 ? stop : { ...stop, opacity: percent / 100 },
    gesture && `stop opacity ${selected.value}`,
  );
}
</script>

<template>
  <div class="gradient" :style="{ width: `${width}px` }">
    <div
      ref="bar"
      class="bar"
      :style="{ background }"
      role="group"
      :aria-label="label ?? 'Colour over age'"
      title="Double click to add a colour"
      @dblclick="add"
    ></div>
    <template v-if="ends">
      <span class="end quiet" style="left: 0">{{ ends[0] }}</span>
      <span class="end quiet" style="right: 0">{{ ends[1] }}</span>
    </template>
    <button
      v-for="{ id, css, x } in items"
      :key="id"
      type="button"
      class="stop"
      :class="{ on: id === selected }"
      :style="{ left: `${Math.min(width - 6, Math.max(6, x * width))}px`, '--stop': css }"
      :aria-label="`colour at ${Math.round(x * 100)}%`"
      @pointerdown="pull($event, id)"
      @focus="selected = id"
      @keydown="keyDown($event, id)"
    ></button>
    <div
      v-if="chosen"
      class="tool"
      :style="{ left: `${Math.min(width - 250, Math.max(0, chosen.x * width - 60))}px` }"
    >
      <ColourWords :colour="chosen.stop.colour" label="colour of this stop" @change="recolour" />
      <PlainChip
        :value="Math.round((chosen.stop.opacity ?? 1) * 1000) / 10"
        label="opacity of this stop"
        unit="%"
        :least="0"
        :most="100"
        title="How opaque it is here: it multiplies the opacity"
        @change="fade"
      />
      <KeyPlaceFields
        :at="chosen.stop.at"
        :x="chosen.x"
        :life="life"
        what="stop"
        @change="(at) => set(selected, { ...chosen!.stop, at }, null)"
      />
    </div>
  </div>
</template>

<style scoped>
.gradient {
  position: relative;
  height: 30px;
}
.bar {
  height: 13px;
  border-radius: 2px;
}
.end {
  position: absolute;
  top: 24px;
  font-size: 12.5px;
  line-height: 16px;
}
.gradient:has(.end) {
  height: 44px;
}
.stop {
  position: absolute;
  top: 13px;
  width: 13px;
  height: 12px;
  margin-left: -6.5px;
  padding: 0;
  border: 0;
  background: #e8e8e8;
  clip-path: polygon(50% 0, 100% 100%, 0 100%);
  cursor: grab;
  touch-action: none;
}
.stop.on,
.stop:focus-visible {
  background: var(--accent);
}
.tool {
  position: absolute;
  bottom: 31px;
  background: #232326;
  border: 1px solid #434347;
  border-radius: 3px;
  padding: 1px 3px;
  z-index: 5;
  white-space: nowrap;
}
.tool :deep(.choice),
.tool :deep(input:not([type='color'])) {
  font-size: 12.5px;
}
.tool :deep(input:not([type='color'])) {
  width: 44px;
  padding: 0 2px;
  border: 0;
  background: none;
  text-align: right;
}
</style>
