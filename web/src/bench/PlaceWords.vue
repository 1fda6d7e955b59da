<script setup lang="ts">
import type { Place } from '@jinx/core/document';
import { computed, inject } from 'vue';
import { ENGINE } from './bench';
import ChoiceChip from './ChoiceChip.vue';
import VectorChip from './VectorChip.vue';

/** Where something stands, in words: in the effect, at the figure's feet, or on a bone; and how far from there. */
const props = defineProps<{ place: Place; label: string }>();
const emit = defineEmits<{ change: [place: Place, gesture: string | null] }>();
const engine = inject(ENGINE)!;

const bones = computed(() => engine.rig.value?.bones.map(({ name }) => name) ?? []);
const choices = computed(() => [
  { value: 'effect', text: "the effect's middle" },
  { value: 'figure', text: "the figure's feet" },
  ...bones.value.map((bone) => ({ value: `bone:${bone}`, text: bone })),
  ...(props.place.kind === 'bone' && !bones.value.includes(props.place.bone)
    ? [{ value: `bone:${props.place.bone}`, text: `${props.place.bone} (missing)` }]
    : []),
]);
const value = computed(() => (props.place.kind === 'bone' ? `bone:${props.place.bone}` : props.place.kind));

function choose(chosen: string): void {
  const offset: Place['offset'] =
    chosen.startsWith('bone:') === value.value.startsWith('bone:')
      ? props.place.offset
      : chosen.startsWith('bone:')
        ? [0, 0, 0]
        : [0, 1, 0];
  emit(
    'change',
    chosen.startsWith('bone:')
      ? { kind: 'bone', bone: chosen.slice(5), offset }
      : { kind: chosen as 'effect' | 'figure', offset },
    null,
  );
}
</script>

<template>
  <ChoiceChip :value="value" :choices="choices" :label="label" @choose="choose" />, moved by
  <VectorChip
    :value="place.offset"
    :label="`${label}, moved by`"
    unit="m"
    :least="-1000"
    :most="1000"
    @change="(offset, gesture) => emit('change', { ...place, offset }, gesture)"
  />
</template>
