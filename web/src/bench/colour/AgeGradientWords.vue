<script setup lang="ts">
import { LAYER_SETTINGS, listed, withoutItem, type Combine, type Shaper } from '@jinx/core/document';
import { Button } from 'ant-design-vue';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import ChoiceChip from '../chips/ChoiceChip.vue';
import BlendAmount from '../shapers/BlendAmount.vue';
import { ageGradient, setAgeGradient } from '../values/shapers';
import { coloursOf } from './bases';

/** How a layer's colour goes over age, in a sentence: its gradient itself stands on the life sheet. */
const store = useEffectStore();
const COMBINES = [
  { value: 'replace', text: 'replaces it' },
  { value: 'multiply', text: 'multiplies it' },
  { value: 'blend', text: 'is blended into it' },
] as const;
const colour = computed(() => store.chosen!.settings['life.colour']);
const gradient = computed(() => {
  const found = ageGradient(colour.value);
  return found && { id: found.id, shaper: colour.value.shapers.byId[found.id]! };
});
const set = (shaper: Shaper, gesture: string | null = null) =>
  store.changeLayers(
    'change how the gradient acts',
    ({ settings }) => {
      const found = ageGradient(settings['life.colour']);
      if (found) settings['life.colour'].shapers.byId[found.id] = shaper;
    },
    gesture,
  );
const combine = (to: string) =>
  set({ ...gradient.value!.shaper, combine: to as Combine, amount: to === 'blend' ? 0.5 : 1 });
/** Begins as the colour is: nothing changes. What differs between particles is multiplied. */
function shape(): void {
  store.changeLayers('shape colour', ({ settings }) => {
    const own = settings['life.colour'];
    const isOne = own.base.kind === 'fixed';
    const first = isOne ? coloursOf(own.base)[0]! : { hex: '#ffffff' };
    const stop = (value: number) => ({ at: { anchor: 'share' as const, value }, colour: first });
    setAgeGradient(own, { order: ['start', 'end'], byId: { start: stop(0), end: stop(1) } }, store.newId());
    const made = ageGradient(own)!;
    if (!isOne) own.shapers.byId[made.id]!.combine = 'multiply';
  });
}
const unshape = () =>
  store.changeLayers('unshape colour', ({ settings }) => {
    const own = settings['life.colour'];
    for (const { id, item } of listed(own.shapers))
      if (item.reads.kind === 'age') own.shapers = withoutItem(own.shapers, id);
  });
const reads = LAYER_SETTINGS['life.colour'].reads;
</script>

<template>
  <template v-if="gradient">
    Over its age, the gradient on the life sheet
    <ChoiceChip
      :value="gradient.shaper.combine"
      :choices="COMBINES"
      label="what the gradient over age does to the colour"
      previews
      @choose="combine"
    />
    <BlendAmount
      v-if="gradient.shaper.combine === 'blend'"
      :shaper="gradient.shaper"
      label="colour"
      :reads="reads"
      @change="set"
    />.
    <Button type="link" @click="unshape">No gradient</Button>
  </template>
  <Button v-else type="link" @click="shape">Change it over age</Button>
</template>
