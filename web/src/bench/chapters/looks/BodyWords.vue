<script setup lang="ts">
import { type DrawnAs, listed } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../../stores/effect';
import ChoiceChip from '../../chips/ChoiceChip.vue';
import ColourSettingChip from '../../colour/ColourSettingChip.vue';
import ColourShapers from '../../colour/ColourShapers.vue';
import SettingChip from '../../chips/SettingChip.vue';
import { useChosenPart } from '../../useChosenPart';

defineProps<{ drawn: Extract<DrawnAs, { kind: 'body' }> }>();
const store = useEffectStore();
const of = useChosenPart('drawn');
const WORDS = { 'over it': 'over the body', 'in its place': 'in place of the body' };
const things = computed(() =>
  listed(store.effect!.stage.things).map(({ id, item }) => ({ value: id, text: item.name })),
);
const fronts = computed(() => [
  { value: '', text: 'nothing' },
  ...listed(store.effect!.fronts).map(({ id, item }) => ({ value: id, text: item.name })),
]);
const change = (
  label: string,
  recipe: (drawn: Extract<DrawnAs, { kind: 'body' }>) => void,
  gesture: string | null = null,
) => store.changeLayers(label, ({ drawn }) => drawn.kind === 'body' && recipe(drawn), gesture);
</script>

<template>
  <p>
    Each is the skin of
    <ChoiceChip
      :value="drawn.thing"
      :choices="things"
      label="whose skin"
      previews
      @choose="(id) => change('choose a body', (body) => (body.thing = id))"
    />, drawn <SettingChip setting="stands" :of="of" :words="WORDS" label="stands" />,
    <SettingChip setting="offset" :of="of" label="distance from the skin" /> from it.
  </p>
  <p>
    It is cut by
    <ChoiceChip
      :value="drawn.front ?? ''"
      :choices="fronts"
      label="front that cuts it"
      previews
      @choose="(id) => change('cut a body', (body) => (body.front = id === '' ? null : id))"
    /><template v-if="drawn.front !== null"
      >: its border glows <SettingChip setting="edge" :of="of" label="width of the glowing edge" /> wide,
      <SettingChip setting="glow" :of="of" label="glow of the edge" /> bright,
      <ColourSettingChip setting="colour" :of="of" label="edge colour" /></template
    >.
    <ColourShapers v-if="drawn.front !== null" setting="colour" :of="of" label="edge colour" />
  </p>
</template>
