<script setup lang="ts">
import {
  LAYER_SETTINGS,
  listed,
  stretchedStops,
  withItem,
  withoutItem,
  type Collection,
  type ColourSetting,
  type Combine,
  type Shaper,
  type Stop,
} from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../../stores/effect';
import MenuButton from '../../chips/MenuButton.vue';
import GradientEditor from '../../rulers/curves/GradientEditor.vue';
import ShaperHead from '../../chips/ShaperHead.vue';
import { newTint, readsOffered, UNITS, widthOf } from '../../values/shapers';

/** What tints a layer's colour beside its age: speed, distance, time, a channel or a dial, each along a gradient. */
const store = useEffectStore();
const WIDTH = 330;
const COMBINES = [
  { value: 'multiply', text: 'multiplied' },
  { value: 'replace', text: 'replaced' },
  { value: 'blend', text: 'blended by half' },
] as const;
const tints = computed(() =>
  listed(store.chosen!.settings['life.colour'].shapers).flatMap(({ id, item }) =>
    item.reads.kind !== 'age' && item.mapping.kind === 'gradient'
      ? [
          {
            id,
            shaper: item,
            stops: item.mapping.stops,
            width: UNITS[item.reads.kind] === undefined ? 1 : widthOf(item.mapping.stops),
          },
        ]
      : [],
  ),
);
const offered = computed(() =>
  readsOffered(LAYER_SETTINGS['life.colour'].reads, store.effect!).filter(({ reads }) => reads.kind !== 'age'),
);
const change = (label: string, recipe: (colour: ColourSetting) => void, gesture: string | null = null) =>
  store.changeLayers(label, ({ settings }) => recipe(settings['life.colour']), gesture);
function add(value: string): void {
  const { reads } = offered.value.find((offer) => offer.value === value)!;
  const id = store.newId();
  change('tint the colour', (colour) => (colour.shapers = withItem(colour.shapers, id, newTint(reads))));
}
const remove = (id: string) =>
  change('take a tint off', (colour) => (colour.shapers = withoutItem(colour.shapers, id)));
const set = (id: string, shaper: Partial<Shaper>, gesture: string | null = null) =>
  change(
    'change a tint',
    ({ shapers }) => shapers.byId[id] && (shapers.byId[id] = { ...shapers.byId[id]!, ...shaper }),
    gesture && `tint ${id} ${gesture}`,
  );
const setStops = (id: string, stops: Collection<Stop>, gesture: string | null) =>
  set(id, { mapping: { kind: 'gradient', stops } }, gesture);
const setCombine = (id: string, combine: Combine) => set(id, { combine, amount: combine === 'blend' ? 0.5 : 1 });
</script>

<template>
  <div v-for="{ id, shaper, stops, width } in tints" :key="id" class="tint">
    <ShaperHead
      :shaper="shaper"
      label="colour"
      :combines="COMBINES"
      :width="width"
      @combine="setCombine(id, $event)"
      @widen="(to, drag) => setStops(id, stretchedStops(stops, to / width), drag)"
      @mute="(muted) => set(id, { muted })"
      @remove="remove(id)"
    />
    <GradientEditor
      :stops="stretchedStops(stops, 1 / width)"
      :width="WIDTH"
      :life="1"
      @change="(next, drag) => setStops(id, stretchedStops(next, width), drag)"
      @done="store.endGesture()"
    />
  </div>
  <p v-if="offered.length"><MenuButton label="tint it…" :choices="offered" previews @choose="add" /></p>
</template>

<style scoped>
.tint {
  margin-bottom: 6px;
}
</style>
