<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { takeIn, wholeOf } from '@jinx/core/editing';
import type { Group } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../stores/effect';
import ChoiceChip from './chips/ChoiceChip.vue';

/** A group that is another effect: which one, where among the layers it is drawn, and how it becomes a part of this one. */
const props = defineProps<{ id: string; linked: NonNullable<Group['linked']> }>();
const store = useEffectStore();
const layers = computed(() => {
  const whole = wholeOf(store.effect!);
  return (whole.layersOf.get(props.id) ?? []).map((layer) => whole.effect.layers.byId[layer]!.name);
});
const lost = computed(() => wholeOf(store.effect!).lostOf.get(props.id) ?? []);
const PLACES = [
  { value: 'behind', text: 'behind all layers' },
  { value: 'front', text: 'in front of all layers' },
];
const change = (label: string, recipe: (linked: NonNullable<Group['linked']>) => void) =>
  store.change(label, (draft) => {
    const { linked } = draft.groups.byId[props.id]!;
    if (linked) recipe(linked);
  });
const hide = () =>
  change(props.linked.hidden ? 'show a linked effect' : 'hide a linked effect', (linked) => {
    linked.hidden = !linked.hidden;
  });
const place = (where: string) => change('place a linked effect', (linked) => (linked.inFront = where === 'front'));
const own = () => store.change('take a linked effect in', (draft) => void takeIn(draft, props.id));
</script>

<template>
  <p>
    It is the effect <RouterLink :to="`/effects/${linked.of}`">{{ linked.effect.name }}</RouterLink>, as that was
    saved last, drawn
    <ChoiceChip
      :value="linked.inFront ? 'front' : 'behind'"
      :choices="PLACES"
      label="linked effect is drawn"
      @choose="place"
    />. It goes by the opening, hold and closing of {{ store.effect!.name }}; its colours, measures, signals and dials
    of numbers, colours and switches that have the same names here are those of here.
  </p>
  <p v-if="lost.length" class="warn">
    Without a match here: {{ lost.join('; ') }}. What hung on it stands in this group instead.
  </p>
  <p v-if="layers.length" class="quiet">In it: {{ layers.join(', ') }}.</p>
  <p>
    <Button type="link" :aria-pressed="linked.hidden" @click="hide">
      {{ linked.hidden ? 'Show it' : 'Hide it' }}
    </Button>
    <Button type="link" @click="own">Make its layers my own</Button>
    <span class="quiet">They look the same, and follow {{ linked.effect.name }} no more.</span>
  </p>
</template>

<style scoped>
.warn {
  color: var(--warn);
}
a {
  color: var(--accent);
  text-decoration: underline;
}
</style>
