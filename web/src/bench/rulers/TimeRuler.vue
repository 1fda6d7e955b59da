<script setup lang="ts">
import { LEAST_HOLD, MOST_STRETCH, setStretch } from '@jinx/core/editing';
import { computed, ref } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { plainNumber } from '../entry/numbers';
import NumberField from '../chips/NumberField.vue';
import { dragBy } from './dragBy';
import { PAD } from './layout';
import { snappedTime, STEP, useTimeView } from './timeView';

/** The time sheet's head: the three stretches with their lengths, whose borders are dragged, where nothing lives, and the playhead's way. */
const props = defineProps<{ width: number }>();
const emit = defineEmits<{ seek: [seconds: number] }>();
const store = useEffectStore();
const holder = ref<HTMLElement>();
const { clock, seconds: shown, dead, keepScale } = useTimeView();
const room = computed(() => props.width - 2 * PAD);
type StretchName = 'opening' | 'hold' | 'closing';
const parts = computed(() => {
  const { opening, hold, closing } = clock.value;
  const share = (seconds: number) => seconds / shown.value;
  return [
    { name: 'opening' as const, word: 'opens', from: 0, share: share(opening), seconds: opening },
    { name: 'hold' as const, word: 'holds', from: share(opening), share: share(hold), seconds: hold },
    {
      name: 'closing' as const,
      word: 'closes',
      from: share(opening + hold),
      share: share(closing),
      seconds: closing,
    },
  ];
});
/** Pixels that a stretch's word and length take, however short it is. */
const LEAST = 84;
/** Where the words stand: over their stretches, moved aside where these are too short for them. */
const words = computed(() => {
  const placed = parts.value.map((part) => ({ ...part, left: part.from * room.value, width: 0 }));
  for (let n = 1; n < placed.length; n++) placed[n]!.left = Math.max(placed[n]!.left, placed[n - 1]!.left + LEAST);
  for (let n = placed.length - 1, end = room.value; n >= 0; n--) {
    placed[n]!.left = Math.min(placed[n]!.left, end - LEAST);
    placed[n]!.width = Math.min(end - placed[n]!.left, Math.max(LEAST, placed[n]!.share * room.value));
    end = placed[n]!.left;
  }
  return placed;
});
/** The end of each stretch: dragged, it makes that stretch longer or shorter; what follows goes with it. */
const borders = computed(() =>
  parts.value.map(({ name, from, share, seconds }) => ({ name, at: from + share, seconds })),
);
const setLength = (name: StretchName, seconds: number, gesture: string | null = null): void =>
  store.change(`set the ${name}`, (draft) => setStretch(draft, name, seconds), gesture);
function pull(event: PointerEvent, name: StretchName, from: number): void {
  if (event.button !== 0) return;
  event.stopPropagation();
  const start = event.clientX;
  const perPixel = shown.value / room.value;
  const before = parts.value.find((part) => part.name === name)!.from * shown.value;
  keepScale(true);
  dragBy(
    event,
    ({ clientX }) =>
      // Dragged, a hold is not lost: that takes a typed 0.
      setLength(
        name,
        Math.max(
          name === 'hold' ? LEAST_HOLD : 0,
          snappedTime(before + from + (clientX - start) * perPixel, [], perPixel) - before,
        ),
        `border ${name}`,
      ),
    () => {
      keepScale(false);
      store.endGesture();
    },
  );
}
function walk(event: KeyboardEvent, name: StretchName, from: number): void {
  const way = { ArrowLeft: -STEP, ArrowRight: STEP }[event.key];
  if (way === undefined) return;
  event.preventDefault();
  setLength(
    name,
    Math.max(name === 'hold' ? LEAST_HOLD : 0, from + way * (event.shiftKey ? 10 : 1)),
    `walk border ${name}`,
  );
}
function scrub(event: PointerEvent): void {
  if ((event.target as HTMLElement).tagName === 'INPUT') return;
  const box = holder.value!.getBoundingClientRect();
  const go = (x: number) =>
    emit('seek', Math.min(clock.value.length, Math.max(0, (x - box.left - PAD) / room.value) * shown.value));
  go(event.clientX);
  dragBy(event, (move) => go(move.clientX));
}
</script>

<template>
  <div ref="holder" class="ruler" title="Drag to scrub" @pointerdown="scrub">
    <i
      v-for="span in dead"
      :key="span.from"
      class="dead"
      :title="`Nothing lives from ${span.from.toFixed(2)} s to ${span.to.toFixed(2)} s`"
      :style="{
        left: `${PAD + (span.from / shown) * room}px`,
        width: `${Math.max(2, ((span.to - span.from) / shown) * room)}px`,
      }"
    ></i>
    <i
      v-if="clock.preRoll > 0"
      class="unseen"
      title="Pre-rolled, it is first seen as its hold begins: the opening is not shown."
      :style="{ left: `${PAD}px`, width: `${(clock.opening / shown) * room}px` }"
    ></i>
    <label
      v-for="part in words"
      :key="part.name"
      class="part"
      :style="{ left: `${PAD + part.left}px`, width: `${part.width}px` }"
      :class="{ none: part.share === 0 }"
    >
      <span>{{ part.word }}</span>
      <NumberField
        :text="`${plainNumber(part.seconds)} s`"
        :limits="{ name: `the ${part.name}`, least: 0, most: MOST_STRETCH, unit: 's' }"
        :label="`${part.name} in seconds`"
        @change="setLength(part.name, $event)"
      />
    </label>
    <i class="border first" :style="{ left: `${PAD}px` }"></i>
    <div
      v-for="border in borders"
      :key="border.name"
      class="border"
      role="slider"
      tabindex="0"
      :aria-label="`End of the ${border.name}`"
      :aria-valuenow="border.seconds"
      :aria-valuetext="`${plainNumber(border.seconds)} s long`"
      :title="`Drag to make the ${border.name} longer or shorter`"
      :style="{ left: `${PAD + Math.min(1, border.at) * room}px` }"
      @pointerdown="pull($event, border.name, border.seconds)"
      @keydown="walk($event, border.name, border.seconds)"
    ></div>
  </div>
</template>

<style scoped>
.ruler {
  position: relative;
  height: 28px;
  cursor: ew-resize;
  border-left: 1px solid var(--rule);
  border-right: 1px solid var(--rule);
  touch-action: none;
  overflow: hidden;
}
.part {
  position: absolute;
  top: 5px;
  height: 18px;
  box-sizing: border-box;
  text-align: center;
  font-size: 12.5px;
  line-height: 18px;
  color: var(--soft);
  overflow: hidden;
  white-space: nowrap;
  z-index: 1;
  pointer-events: none;
}
.part > * {
  background: #161617;
}
.part :deep(input) {
  pointer-events: auto;
}
.none {
  color: var(--dim);
}
.border {
  position: absolute;
  z-index: 2;
  top: 0;
  height: 28px;
  width: 9px;
  margin-left: -4px;
  cursor: col-resize;
  touch-action: none;
  /* The words of a short stretch stand over its end: only above and below them it is drawn. */
  background: linear-gradient(#95959a 0 5px, transparent 5px 22px, #95959a 22px) 4px 0 / 1px 100% no-repeat;
}
.border:hover,
.border:focus-visible {
  background: linear-gradient(var(--accent) 0 5px, transparent 5px 22px, var(--accent) 22px) 3px 0 / 3px 100%
    no-repeat;
}
.first {
  pointer-events: none;
}
.dead,
.unseen {
  position: absolute;
  bottom: 0;
  height: 4px;
}
.dead {
  background: repeating-linear-gradient(135deg, var(--warn) 0 2px, transparent 2px 5px);
}
.unseen {
  top: 0;
  height: 100%;
  background: repeating-linear-gradient(135deg, #55555a 0 1px, transparent 1px 6px);
}
:deep(input) {
  width: 42px;
  border: 0;
  padding: 0 2px;
  color: var(--soft);
}
:deep(input:focus) {
  background: var(--deep);
}
</style>
