<script setup lang="ts">
import { inject, nextTick, ref, useId } from 'vue';
import { useEffectStore } from '../stores/effect';
import { DRAGS } from './bench';
import { plainNumber, sumOf } from './format';
import { sideways } from './sideways';

/** A bare number in a sentence: dragged, typed (sums too), nudged by the arrow keys. */
const props = defineProps<{
  value: number;
  label: string;
  unit?: string;
  least: number;
  most: number;
  whole?: boolean;
}>();
const emit = defineEmits<{ change: [value: number, gesture: string | null] }>();
const store = useEffectStore();
const isTyping = ref(false);
const typed = ref('');
const field = ref<HTMLInputElement>();

/** Tells this chip's steps of undo from those of another with the same label. */
const gesture = useId();

function take(value: number, ofGesture: string | null): void {
  const rounded = props.whole ? Math.round(value) : Number(value.toPrecision(6));
  const fitted = Math.min(props.most, Math.max(props.least, rounded));
  if (fitted !== props.value) emit('change', fitted, ofGesture);
}
async function open(): Promise<void> {
  typed.value = plainNumber(props.value);
  isTyping.value = true;
  await nextTick();
  field.value?.select();
}
function commit(): void {
  if (!isTyping.value) return;
  isTyping.value = false;
  if (typed.value === plainNumber(props.value)) return;
  try {
    take(sumOf(typed.value), null);
  } catch {
    // What is no number leaves the value as it was.
  }
}

const step = () => (props.whole ? 1 : 0.01);
let start = 0;
const drags = inject(DRAGS, () => undefined);
const drag = sideways({
  begin: () => (start = props.value),
  by: (steps) => take(start + steps * step(), `drag ${gesture}`),
  click: () => void open(),
  dragBegins: () => drags(true),
  end: () => {
    drags(false);
    store.endGesture();
  },
});
function nudge(event: KeyboardEvent, direction: number): void {
  event.preventDefault();
  take(props.value + direction * step() * (event.shiftKey ? 10 : event.altKey ? 0.1 : 1), `nudge ${gesture}`);
}
</script>

<template>
  <button
    v-if="!isTyping"
    type="button"
    class="chip drags number"
    :aria-label="`${label}: ${plainNumber(value)}`"
    :title="`${label}. Drag, or click to type.`"
    v-on="drag"
    @keydown.enter.prevent="open"
    @keydown.up="nudge($event, 1)"
    @keydown.down="nudge($event, -1)"
  >
    {{ plainNumber(value) }}
  </button>
  <input
    v-else
    ref="field"
    v-model="typed"
    class="chip number"
    :aria-label="label"
    @blur="commit"
    @keydown.enter.prevent="commit"
    @keydown.esc.stop="isTyping = false"
  />
  <span v-if="unit">&nbsp;{{ unit }}</span>
</template>

<style scoped>
.chip {
  min-width: 30px;
  text-align: right;
}
input.chip {
  width: 56px;
  cursor: text;
  background: var(--deep);
  box-shadow: inset 0 0 0 1px var(--accent);
}
</style>
