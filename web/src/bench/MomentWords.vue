<script setup lang="ts">
import { listed, type Moment } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../stores/effect';
import ChoiceChip from './ChoiceChip.vue';
import PlainChip from './PlainChip.vue';

/** A moment of the effect's time: so many seconds, or a measure, after a border of the stretches or another layer's event. */
const props = defineProps<{ moment: Moment; label: string; layerId: string }>();
const emit = defineEmits<{ change: [moment: Moment, gesture: string | null] }>();
const store = useEffectStore();

const BORDERS = [
  { value: 'border/start', text: 'the start' },
  { value: 'border/hold', text: 'the hold begins' },
  { value: 'border/letGo', text: 'it is let go' },
  { value: 'border/end', text: 'the end' },
];
const EVENTS = { firstBirth: 'first birth', lastBirth: 'last birth', lastDeath: 'last death' } as const;
const anchors = computed(() => [
  ...BORDERS,
  ...listed(store.effect!.layers)
    .filter(({ id }) => id !== props.layerId)
    .flatMap(({ id, item }) =>
      Object.entries(EVENTS).map(([event, text]) => ({
        value: `layer/${id}/${event}`,
        text: `${item.name}’s ${text}`,
      })),
    ),
]);
const anchor = computed(() => {
  const { after } = props.moment;
  return after.kind === 'border' ? `border/${after.border}` : `layer/${after.layer}/${after.event}`;
});
const measures = computed(() => [
  { value: '', text: 'seconds' },
  ...listed(store.effect!.measures)
    .filter(({ item }) => item.quantity === 'time')
    .map(({ id, item }) => ({ value: id, text: item.name })),
]);

function chooseAnchor(chosen: string): void {
  const [kind, first = '', event = ''] = chosen.split('/');
  const after = (kind === 'border' ? { kind, border: first } : { kind, layer: first, event }) as Moment['after'];
  emit('change', { ...props.moment, after }, null);
}
</script>

<template>
  <PlainChip
    v-if="moment.measure === null"
    :value="moment.seconds"
    :label="`${label}, seconds`"
    unit="s"
    :least="-3600"
    :most="3600"
    @change="(seconds, gesture) => emit('change', { ...moment, seconds }, gesture)"
  />
  <ChoiceChip
    v-if="measures.length > 1"
    :value="moment.measure ?? ''"
    :choices="measures"
    :label="`${label}, measured by`"
    @choose="emit('change', { ...moment, measure: $event || null }, null)"
  />
  after <ChoiceChip :value="anchor" :choices="anchors" :label="`${label}, after`" @choose="chooseAnchor" />
</template>
