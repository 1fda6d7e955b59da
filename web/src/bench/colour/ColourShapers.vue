<script setup lang="ts">
import {
  listed,
  stretchedStops,
  withItem,
  withoutItem,
  type Collection,
  type ColourDeclaration,
  type ColourSetting,
  type Combine,
  type HolderAddress,
  type Reads,
  type Shaper,
  type Stop,
} from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import MenuButton from '../chips/MenuButton.vue';
import GradientEditor from '../rulers/curves/GradientEditor.vue';
import BlendAmount from '../shapers/BlendAmount.vue';
import ShaperHead from '../shapers/ShaperHead.vue';
import { newTint, readsOffered, UNITS, widthOf } from '../values/shapers';
import { useSetting } from '../values/useSetting';

/** What shapes a colour along gradients: age, speed, distance, time, a channel, a dial. What another place shows is left out. */
const props = defineProps<{
  setting: string;
  label: string;
  of?: HolderAddress;
  leavesOut?: Reads['kind'];
}>();
const store = useEffectStore();
const { setting, declaration, change } = useSetting<ColourSetting, ColourDeclaration>(
  () => props.setting,
  () => props.of,
);
const WIDTH = 330;
const COMBINES = [
  { value: 'multiply', text: 'multiplied' },
  { value: 'replace', text: 'replaced' },
  { value: 'blend', text: 'blended' },
] as const;
const tints = computed(() =>
  listed(setting.value.shapers).flatMap(({ id, item }) =>
    item.reads.kind !== props.leavesOut && item.mapping.kind === 'gradient'
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
  readsOffered(declaration.value.reads, store.effect!).filter(({ reads }) => reads.kind !== props.leavesOut),
);
function add(value: string): void {
  const { reads } = offered.value.find((offer) => offer.value === value)!;
  const id = store.newId();
  change(`shape the ${props.label}`, (colour) => (colour.shapers = withItem(colour.shapers, id, newTint(reads))));
}
const remove = (id: string) =>
  change(`take a gradient off the ${props.label}`, (colour) => (colour.shapers = withoutItem(colour.shapers, id)));
const set = (id: string, shaper: Shaper, gesture: string | null = null) =>
  change(
    `change a gradient of the ${props.label}`,
    ({ shapers }) => shapers.byId[id] && (shapers.byId[id] = shaper),
    gesture && `tint ${id} ${gesture}`,
  );
const setStops = (id: string, shaper: Shaper, stops: Collection<Stop>, gesture: string | null) =>
  set(id, { ...shaper, mapping: { kind: 'gradient', stops } }, gesture);
const setCombine = (id: string, shaper: Shaper, combine: Combine) =>
  set(id, { ...shaper, combine, amount: combine === 'blend' ? 0.5 : 1 });
/** Along a ribbon, what is read runs from its head to its tail. */
const endsOf = ({ reads }: Shaper) => (reads.kind === 'along' ? (['head', 'tail'] as const) : null);
</script>

<template>
  <div v-for="{ id, shaper, stops, width } in tints" :key="id" class="tint">
    <ShaperHead
      :shaper="shaper"
      :label="label"
      :combines="COMBINES"
      :width="width"
      @combine="setCombine(id, shaper, $event)"
      @widen="(to, drag) => setStops(id, shaper, stretchedStops(stops, to / width), drag)"
      @mute="(muted) => set(id, { ...shaper, muted })"
      @remove="remove(id)"
    >
      <BlendAmount
        v-if="shaper.combine === 'blend'"
        :shaper="shaper"
        :label="label"
        :reads="declaration.reads"
        @change="(next, drag) => set(id, next, drag)"
      />
    </ShaperHead>
    <GradientEditor
      :stops="stretchedStops(stops, 1 / width)"
      :width="WIDTH"
      :life="1"
      :label="`${label}, its gradient`"
      :ends="endsOf(shaper)"
      @change="(next, drag) => setStops(id, shaper, stretchedStops(next, width), drag)"
      @done="store.endGesture()"
    />
  </div>
  <MenuButton
    v-if="offered.length"
    :label="label === 'colour' ? 'tint it…' : `tint the ${label}…`"
    :choices="offered"
    previews
    @choose="add"
  />
</template>

<style scoped>
.tint {
  margin-bottom: 6px;
}
</style>
