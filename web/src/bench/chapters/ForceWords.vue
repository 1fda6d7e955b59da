<script setup lang="ts">
import type { Force, Place, Vector, VectorSetting } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import NumberChip from '../NumberChip.vue';
import PlaceWords from '../PlaceWords.vue';
import VectorChip from '../VectorChip.vue';

/** One force as a sentence. */
const props = defineProps<{ id: string; force: Force }>();
const store = useEffectStore();
const setPlace = (place: Place, gesture: string | null) =>
  store.changeLayer('place a force', (layer) => (layer.forces.byId[props.id]!.place = place), gesture);
const axis = computed(() =>
  props.force.kind === 'vortex' ? (props.force.settings.axis as VectorSetting).base : null,
);
const setAxis = (value: Vector, gesture: string | null) =>
  store.changeLayer(
    'turn a force',
    (layer) => {
      const target = layer.forces.byId[props.id]!;
      if (target.kind === 'vortex') target.settings.axis.base = { kind: 'fixed', value };
    },
    gesture,
  );
</script>

<template>
  <template v-if="force.kind === 'gravity'"
    >Pulled down by <NumberChip setting="strength" :force="id" label="gravity" />.</template
  >
  <template v-else-if="force.kind === 'drag'"
    >Slowed by <NumberChip setting="strength" :force="id" label="drag" />.</template
  >
  <template v-else-if="force.kind === 'attraction'">
    Drawn to <PlaceWords :place="force.place" label="attraction place" @change="setPlace" /> by
    <NumberChip setting="strength" :force="id" label="attraction" />, within
    <NumberChip setting="reach" :force="id" label="attraction reach" />.
  </template>
  <template v-else-if="force.kind === 'vortex'">
    Turned round <PlaceWords :place="force.place" label="vortex place" @change="setPlace" /> on the axis
    <VectorChip
      v-if="axis?.kind === 'fixed'"
      :value="axis.value"
      label="vortex axis"
      :least="-1"
      :most="1"
      @change="setAxis"
    />
    by <NumberChip setting="strength" :force="id" label="spin" />, pulled in by
    <NumberChip setting="pull" :force="id" label="pull" />, lifted by
    <NumberChip setting="lift" :force="id" label="lift" />, within
    <NumberChip setting="reach" :force="id" label="vortex reach" />.
  </template>
  <template v-else>
    Stirred by swirls of <NumberChip setting="size" :force="id" label="swirl size" />,
    <NumberChip setting="strength" :force="id" label="swirl strength" /> strong, changing
    <NumberChip setting="change" :force="id" label="swirl change" />.
  </template>
</template>
