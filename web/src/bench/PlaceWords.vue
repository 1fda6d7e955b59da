<script setup lang="ts">
import { emptyCollection, listed, type Place } from '@jinx/core/document';
import { computed, inject } from 'vue';
import { useEffectStore } from '../stores/effect';
import { ENGINE } from './bench';
import ChoiceChip from './ChoiceChip.vue';
import VectorChip from './VectorChip.vue';

/** Where something stands, in words: in the effect, in the world, at a thing's feet or on a bone; how far and how turned. */
const props = defineProps<{ place: Place; label: string; turns?: boolean }>();
const emit = defineEmits<{ change: [place: Place, gesture: string | null] }>();
const engine = inject(ENGINE)!;
const store = useEffectStore();

const choices = computed(() => {
  const things = listed(store.effect!.stage.things).flatMap(({ id, item }) => [
    { value: `${id}/`, text: `${item.name}'s feet` },
    ...(engine.rigs.value.get(id)?.bones ?? []).map(({ name }) => ({
      value: `${id}/${name}`,
      text: store.effect!.stage.things.order.length > 1 ? `${item.name}, ${name}` : name,
    })),
  ]);
  const known = [
    { value: 'effect', text: "the effect's middle" },
    { value: 'world', text: 'the middle of the world' },
    ...things,
  ];
  return known.some((choice) => choice.value === value.value)
    ? known
    : [...known, { value: value.value, text: `${value.value.split('/')[1] || 'something'} (missing)` }];
});
const value = computed(() => {
  const { place } = props;
  return place.kind === 'bone'
    ? `${place.thing}/${place.bone}`
    : place.kind === 'thing'
      ? `${place.thing}/`
      : place.kind;
});

function choose(chosen: string): void {
  const [thing = '', bone = ''] = chosen.split('/');
  const isBone = bone !== '';
  const offset: Place['offset'] =
    isBone === (props.place.kind === 'bone') ? props.place.offset : isBone ? [0, 0, 0] : [0, 1, 0];
  const hung = { offset, turn: props.place.turn, keys: emptyCollection<never>() };
  emit(
    'change',
    chosen === 'effect' || chosen === 'world'
      ? { kind: chosen, ...hung }
      : isBone
        ? { kind: 'bone', thing, bone, ...hung }
        : { kind: 'thing', thing, ...hung },
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
  /><template v-if="turns"
    >, turned by
    <VectorChip
      :value="place.turn"
      :label="`${label}, turned by`"
      unit="°"
      :least="-3600"
      :most="3600"
      @change="(turn, gesture) => emit('change', { ...place, turn }, gesture)"
  /></template>
</template>
