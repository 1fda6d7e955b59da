<script setup lang="ts">
import { EffectClock } from '@jinx/core/simulation';
import { computed, ref } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { plainNumber, sumOf } from '../format';
import TextField from '../TextField.vue';
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
  const target = event.currentTarget as HTMLElement;
  target.setPointerCapture(event.pointerId);
  const go = (x: number) =>
    emit('seek', Math.min(1, Math.max(0, (x - box.left - PAD) / (props.width - 2 * PAD))) * clock.value.length);
  go(event.clientX);
  target.onpointermove = (move) => go(move.clientX);
  target.onpointerup = target.onpointercancel = () => (target.onpointermove = null);
}
</script>

<template>
  <div ref="holder" class="ruler" title="Drag to scrub" @pointerdown="scrub">
    <label
      v-for="part in parts"
      :key="part.name"
      class="part"
      :style="{
        left: `${PAD + part.from * (width - 2 * PAD)}px`,
        width: `${Math.max(part.share > 0 ? 0 : 62, part.share * (width - 2 * PAD))}px`,
      }"
      :class="{ none: part.share === 0, last: part.name === 'closing' }"
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
  border-left: 1px solid #6a6a6e;
  border-right: 1px solid #6a6a6e;
  box-sizing: border-box;
  text-align: center;
  font-size: 12.5px;
  line-height: 18px;
  color: var(--soft);
  overflow: hidden;
  white-space: nowrap;
  cursor: inherit;
}
.none {
  opacity: 0.6;
  border-color: transparent;
}
.none.last {
  transform: translateX(-100%);
}
input {
  width: 42px;
  background: none;
  border: 0;
  padding: 0 2px;
  color: var(--soft);
}
input:focus {
  background: var(--deep);
}
</style>
