<script setup lang="ts">
import { Input } from 'ant-design-vue';
import { readNumber, within, type Limits } from '../entry/numbers';
import Refusal from '../Refusal.vue';
import { useTyped } from '../entry/useTyped';

/** A number that is always seen as a field: typed with sums and units, taken on Enter or on leaving, refused with the reason. */
const props = defineProps<{
  /** As it is written now. */
  text: string;
  limits: Limits;
  label: string;
  /** The unit it is written in, where that is not its own. */
  shown?: string;
}>();
const emit = defineEmits<{ change: [value: number] }>();
const { isTyping, typed, problem, commit, cancel } = useTyped(
  () => props.text,
  (text) => emit('change', within(readNumber(text, { unit: props.limits.unit, shown: props.shown }), props.limits)),
);
/** Until something is typed it shows what is so, whatever changes that meanwhile. */
function begin(event: FocusEvent): void {
  if (!problem.value) (event.target as HTMLInputElement).select();
}
function input(event: Event): void {
  isTyping.value = true;
  typed.value = (event.target as HTMLInputElement).value;
}
function end(event: KeyboardEvent): void {
  cancel();
  (event.target as HTMLInputElement).blur();
}
</script>

<template>
  <Refusal :problem="problem">
    <Input
      class="number"
      :value="isTyping ? typed : text"
      :aria-label="label"
      :aria-invalid="problem !== ''"
      @focus="begin"
      @input="input"
      @blur="commit"
      @keydown.enter="commit() && ($event.target as HTMLInputElement).blur()"
      @keydown.esc.stop="end"
    />
  </Refusal>
</template>
