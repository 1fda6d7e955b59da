<script setup lang="ts">
import { listed, type Colour } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { cssOf } from '../values/colour';
import ChoiceChip from './ChoiceChip.vue';

/** A colour in a sentence: one of the palette, or one of its own. */
const props = defineProps<{ colour: Colour; label: string }>();
const emit = defineEmits<{ change: [colour: Colour, isDrag: boolean] }>();
const store = useEffectStore();
const css = computed(() => cssOf(props.colour, store.effect!));
const named = computed(() => listed(store.effect!.palette));
const choices = computed(() => [
  { value: '', text: 'its own' },
  ...named.value.map(({ id, item }) => ({ value: id, text: item.name })),
]);
const chosen = computed(() => ('palette' in props.colour ? props.colour.palette : ''));

function choose(value: string): void {
  emit('change', value === '' ? { hex: css.value } : { palette: value }, false);
}
</script>

<template>
  <span class="colour">
    <input
      type="color"
      :value="css"
      :aria-label="label"
      :title="label"
      @input="emit('change', { hex: ($event.target as HTMLInputElement).value }, true)"
      @change="store.endGesture()"
    />
    <ChoiceChip
      v-if="named.length"
      :value="chosen"
      :choices="choices"
      :label="`${label}, from the palette`"
      previews
      @choose="choose"
    />
  </span>
</template>

<style scoped>
.colour {
  white-space: nowrap;
}
input {
  width: 30px;
  height: 22px;
  padding: 0;
  margin: 0 2px;
  border: 1px solid #55555a;
  border-radius: 3px;
  background: none;
  vertical-align: middle;
  cursor: pointer;
}
</style>
