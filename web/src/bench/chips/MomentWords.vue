<script setup lang="ts">
import { listed, type Moment } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import ChoiceChip from './ChoiceChip.vue';
import PlainChip from './PlainChip.vue';

/** A moment of the effect's time: so many seconds, or a measure, after a border of the stretches or another layer's event. */
const props = defineProps<{ moment: Moment; label: string; layerId: string }>();
const emit = defineEmits<{ change: [moment: Moment, gesture: string | null] }>();
const store = useEffectStore();

type After = Moment['after'];
const BORDERS = { start: 'the start', hold: 'the hold begins', letGo: 'it is let go', end: 'the end' } as const;
const EVENTS = { firstBirth: 'first birth', lastBirth: 'last birth', lastDeath: 'last death' } as const;
const keysOf = <K extends string>(table: Readonly<Record<K, string>>) => Object.keys(table) as K[];
const keyOf = (after: After) => (after.kind === 'border' ? after.border : `${after.layer} ${after.event}`);
const choice = (after: After, text: string) => ({ value: keyOf(after), text, after });
const anchors = computed(() => [
  ...keysOf(BORDERS).map((border) => choice({ kind: 'border', border }, BORDERS[border])),
  ...listed(store.effect!.layers)
    .filter(({ id }) => id !== props.layerId)
    .flatMap(({ id, item }) =>
      keysOf(EVENTS).map((event) => choice({ kind: 'layer', layer: id, event }, `${item.name}’s ${EVENTS[event]}`)),
    ),
]);
const anchor = computed(() => keyOf(props.moment.after));
const measures = computed(() => [
  { value: '', text: 'seconds' },
  ...listed(store.effect!.measures)
    .filter(({ item }) => item.quantity === 'time')
    .map(({ id, item }) => ({ value: id, text: item.name })),
]);

const chooseAnchor = (chosen: string) =>
  emit('change', { ...props.moment, after: anchors.value.find(({ value }) => value === chosen)!.after }, null);
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
    previews
    @choose="emit('change', { ...moment, measure: $event || null }, null)"
  />
  after <ChoiceChip :value="anchor" :choices="anchors" :label="`${label}, after`" previews @choose="chooseAnchor" />
</template>
