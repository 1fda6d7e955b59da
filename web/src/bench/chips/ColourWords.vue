<script setup lang="ts">
import { listed, type Colour } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import type { PickItem } from '../pick/pick';
import { cssOf, hexTyped } from '../values/colour';
import ColourField from '../colour/ColourField.vue';
import ChoiceChip from './ChoiceChip.vue';

/** A colour in a sentence: one of the palette, or one of its own, picked or typed. */
const props = defineProps<{ colour: Colour; label: string }>();
const emit = defineEmits<{ change: [colour: Colour, isDrag: boolean] }>();
const store = useEffectStore();
const OWN = 'own';
const css = computed(() => cssOf(props.colour, store.effect!));
const chosen = computed(() => ('palette' in props.colour ? props.colour.palette : OWN));
const choices = computed((): PickItem[] => [
  { value: OWN, text: css.value, swatch: css.value, help: 'A colour of its own: type one, as #8fe0d0 or teal' },
  ...listed(store.effect!.palette).map(({ id, item }) => ({
    value: id,
    text: item.name,
    swatch: cssOf({ palette: id }, store.effect!),
  })),
]);
/** What is typed as a colour of its own, unless the palette has one of that name. */
function offer(typed: string): PickItem | null {
  const hex = hexTyped(typed);
  const isNamed = choices.value.some(({ text }) => text.toLowerCase().startsWith(typed.toLowerCase()));
  return hex === null || isNamed ? null : { value: hex, text: hex, swatch: hex };
}
function choose(value: string): void {
  const isOwn = value === OWN || value.startsWith('#');
  emit('change', isOwn ? { hex: value === OWN ? css.value : value } : { palette: value }, false);
}
</script>

<template>
  <span class="colour">
    <ColourField
      :hex="css"
      :label="label"
      @change="emit('change', { hex: $event }, true)"
      @choose="emit('change', { palette: $event }, false)"
    />
    <ChoiceChip
      :value="chosen"
      :choices="choices"
      :label="`${label}, by name`"
      :offer="offer"
      previews
      @choose="choose"
    />
  </span>
</template>

<style scoped>
.colour {
  white-space: nowrap;
}
</style>
