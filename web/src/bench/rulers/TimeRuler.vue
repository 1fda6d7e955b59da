<script setup lang="ts">
import { EffectClock } from '@jinx/core/simulation';
import { computed, ref } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { plainNumber, sumOf } from '../format';
import TextField from '../TextField.vue';
import { dragBy } from './dragBy';
import { PAD } from './layout';

/** The time sheet's head: the three stretches with their lengths, and the playhead's way. */
const props = defineProps<{ width: number }>();
const emit = defineEmits<{ seek: [seconds: number] }>();
const store = useEffectStore();
const holder = ref<HTMLElement>();
const stretches = computed(() => store.effect!.stretches);
const clock = computed(() => new EffectClock(stretches.value));
const parts = computed(() => {
  const { opening, hold, closing, length } = clock.value;
  const share = (seconds: number) => (length ? seconds / length : 0);
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
  const room = props.width - 2 * PAD;
  const placed = parts.value.map((part) => ({ ...part, left: part.from * room, width: 0 }));
  for (let n = 1; n < placed.length; n++) placed[n]!.left = Math.max(placed[n]!.left, placed[n - 1]!.left + LEAST);
  for (let n = placed.length - 1, end = room; n >= 0; n--) {
    placed[n]!.left = Math.min(placed[n]!.left, end - LEAST);
    placed[n]!.width = Math.min(end - placed[n]!.left, Math.max(LEAST, placed[n]!.share * room));
    end = placed[n]!.left;
  }
  return placed;
});
const borders = computed(() => [...new Set([0, ...parts.value.map(({ from, share }) => from + share)])]);
function set(name: 'opening' | 'hold' | 'closing', text: string): void {
  let seconds: number;
  try {
    seconds = Math.min(600, Math.max(0, sumOf(text.replace(/s\s*$/, ''))));
  } catch {
    return;
  }
  store.change(`set the ${name}`, (draft) => {
    const { hold } = draft.stretches;
    if (name === 'hold')
      draft.stretches.hold =
        seconds < 0.1 ? { kind: 'none' } : { kind: hold.kind === 'seamless' ? 'seamless' : 'continuing', seconds };
    else draft.stretches[name] = seconds;
  });
}
function scrub(event: PointerEvent): void {
  if ((event.target as HTMLElement).tagName === 'INPUT') return;
  const box = holder.value!.getBoundingClientRect();
  const go = (x: number) =>
    emit('seek', Math.min(1, Math.max(0, (x - box.left - PAD) / (props.width - 2 * PAD))) * clock.value.length);
  go(event.clientX);
  dragBy(event, (move) => go(move.clientX));
}
</script>

<template>
  <div ref="holder" class="ruler" title="Drag to scrub" @pointerdown="scrub">
    <i
      v-for="border in borders"
      :key="border"
      class="border"
      :style="{ left: `${PAD + border * (width - 2 * PAD)}px` }"
    ></i>
    <label
      v-for="part in words"
      :key="part.name"
      class="part"
      :style="{ left: `${PAD + part.left}px`, width: `${part.width}px` }"
      :class="{ none: part.share === 0 }"
    >
      <span>{{ part.word }}</span>
      <TextField
        class="number"
        :value="`${plainNumber(part.seconds)} s`"
        :aria-label="`${part.name} in seconds`"
        @commit="set(part.name, $event)"
      />
    </label>
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
  cursor: inherit;
}
.part > * {
  background: #161617;
}
.none {
  color: var(--dim);
}
.border {
  position: absolute;
  top: 5px;
  height: 18px;
  width: 1px;
  background: #6a6a6e;
}
input {
  width: 42px;
  border: 0;
  padding: 0 2px;
  color: var(--soft);
}
input:focus {
  background: var(--deep);
}
</style>
