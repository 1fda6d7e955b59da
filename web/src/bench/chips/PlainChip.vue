<script setup lang="ts">
import { inject, ref, useId } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { DRAGS } from '../bench';
import { readPlain } from '../entry/entry';
import { plainNumber, readNumbers, within, type Limits } from '../entry/numbers';
import Refusal from '../Refusal.vue';
import { takeChipKey } from '../entry/chipKeys';
import { goOn } from '../entry/row';
import { sideways } from '../entry/sideways';
import { useTyped } from '../entry/useTyped';

/** A bare number in a sentence: dragged, typed (sums too), nudged by the arrow keys. */
const props = defineProps<{
  value: number;
  label: string;
  unit?: string;
  hidesUnit?: boolean;
  least: number;
  most: number;
  whole?: boolean;
  /** How many numbers may be typed at once, with commas between; they come as `all`. */
  several?: number;
}>();
const emit = defineEmits<{ change: [value: number, gesture: string | null]; all: [values: number[]] }>();
const store = useEffectStore();

/** Tells this chip's steps of undo from those of another with the same label. */
const gesture = useId();

function take(value: number, ofGesture: string | null): void {
  const rounded = props.whole ? Math.round(value) : Number(value.toPrecision(6));
  const fitted = Math.min(props.most, Math.max(props.least, rounded));
  if (fitted !== props.value) emit('change', fitted, ofGesture);
}
/** A label may say more after a colon. */
const nameOf = (label: string) => /^[^:]*/.exec(label)![0];
const limits = (): Limits => ({ ...props, name: nameOf(props.label), unit: props.unit ?? '' });
const { isTyping, typed, problem, hold, open, commit, cancel } = useTyped(
  () => plainNumber(props.value),
  (text) => {
    const { several, unit = '' } = props;
    typedAll = false;
    if (several === undefined || !/[,;]/.test(text)) return take(readPlain(text, limits(), props.value), null);
    const values = readNumbers(text, { unit });
    if (values.length !== several) throw new Error(`Type one number, or ${several} with commas between`);
    typedAll = true;
    emit(
      'all',
      values.map((value) => within(value, limits())),
    );
  },
);

const button = ref<HTMLElement>();
/** Whether all numbers of a vector were typed at once: then the row goes on after the last of them. */
let typedAll = false;
function finish(by: 1 | -1): void {
  if (!commit()) return;
  void goOn(() => {
    const all = typedAll && by === 1 ? button.value?.closest('.vector')?.querySelectorAll('button.chip') : null;
    return all?.[all.length - 1] ?? button.value;
  }, by);
}
const keyDown = (event: KeyboardEvent) =>
  takeChipKey(event, {
    open: (begun) => void open(begun),
    nudge: (steps) => take(props.value + steps * step(), `nudge ${gesture}`),
    multiply: (by) => take(props.value * by, null),
  });

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
</script>

<template>
  <button
    v-if="!isTyping"
    ref="button"
    type="button"
    class="chip drags number"
    :aria-label="`${label}: ${plainNumber(value)}`"
    :title="`${label}. Drag, or click to type.`"
    v-on="drag"
    @keydown="keyDown"
  >
    {{ plainNumber(value) }}
  </button>
  <Refusal v-else :problem="problem">
    <input
      :ref="hold"
      v-model="typed"
      class="chip number"
      :aria-label="label"
      :aria-invalid="problem !== ''"
      @blur="commit"
      @keydown.enter.prevent="finish(1)"
      @keydown.tab.prevent="finish($event.shiftKey ? -1 : 1)"
      @keydown.esc.stop="cancel"
    />
  </Refusal>
  <span v-if="unit && !hidesUnit">&nbsp;{{ unit }}</span>
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
