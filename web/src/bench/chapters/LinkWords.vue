<script setup lang="ts">
import { surfacesFor, type HolderAddress, type Link } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import ChoiceChip from '../chips/ChoiceChip.vue';
import SettingChip from '../chips/SettingChip.vue';
import { ageGradient } from '../values/shapers';

/** One link as sentences: when, how many of which layer, and what is passed on. */
const props = defineProps<{ id: string; link: Link; others: readonly { value: string; text: string }[] }>();
const store = useEffectStore();
const of = computed((): HolderAddress => ({ kind: 'link', layer: store.chosenId, id: props.id }));

const WHENS = computed(() => [
  { value: 'birth', text: 'is born' },
  { value: 'death', text: 'dies' },
  { value: 'hit', text: 'hits a surface' },
  { value: 'along', text: 'is on its way' },
  ...(isHeld.value || props.link.on === 'release' ? [{ value: 'release', text: 'is freed' }] : []),
]);
const isHeld = computed(() => store.chosen!.front !== null);
const name = computed(() => store.effect!.layers.byId[props.link.layer]?.name ?? 'a layer');
/** The layer it leads to stays among the choices, though by itself it might close a circle now. */
const layers = computed(() =>
  props.others.some(({ value }) => value === props.link.layer)
    ? props.others
    : [...props.others, { value: props.link.layer, text: name.value }],
);
const meets = computed(() => surfacesFor(store.effect!, store.chosenId).some(({ item }) => !item.muted));
const change = (label: string, recipe: (link: Link) => void) =>
  store.changeLayer(label, (layer) => {
    const link = layer.links.byId[props.id];
    if (link) recipe(link);
  });
/** Whether the colour that is passed on shows, where any is: the gradient over age of those who are given it may rule. */
const ruling = computed(() => {
  const { base, shapers, muted } = props.link.settings.colour;
  const isPassed = !muted && (shapers.order.length > 0 || base.kind !== 'fixed' || base.value > 0);
  const target = store.effect!.layers.byId[props.link.layer];
  const gradient = target && ageGradient(target.settings['life.colour']);
  if (!isPassed || !gradient || !target) return null;
  const { combine, muted: isMuted } = target.settings['life.colour'].shapers.byId[gradient.id]!;
  if (isMuted) return null;
  if (combine === 'replace')
    return `The gradient of ${name.value} over age replaces the colour that is passed on: let it multiply to see it.`;
  return `The gradient of ${name.value} over age ${combine === 'multiply' ? 'multiplies' : 'is blended into'} the colour that is passed on.`;
});
const label = (what: string) => `link to ${name.value}, ${what}`;
</script>

<template>
  <span>
    When each
    <ChoiceChip
      :value="link.on"
      :choices="WHENS"
      :label="label('when')"
      @choose="change('change when a link acts', (own) => (own.on = $event as Link['on']))"
    />,
    <template v-if="link.on === 'along'">
      every <SettingChip setting="every" :of="of" :label="label('every')" />,
      <SettingChip setting="times" :of="of" :label="label('times')" />,
    </template>
    <template v-if="link.on === 'hit'">
      <SettingChip
        setting="once"
        :of="of"
        :label="label('only its first')"
        :words="{ yes: 'only the first time', no: 'every time' }"
      />,
    </template>
    <SettingChip setting="count" :of="of" :label="label('how many')" /> of
    <ChoiceChip
      :value="link.layer"
      :choices="layers"
      :label="label('layer')"
      @choose="change('lead a link elsewhere', (own) => (own.layer = $event))"
    />
    are born there, with a chance of <SettingChip setting="chance" :of="of" :label="label('chance')" />, after
    <SettingChip setting="delay" :of="of" :label="label('delay')" />.
  </span>
  <span class="where">
    They are given <SettingChip setting="velocity" :of="of" :label="label('passed speed')" /> of its velocity,
    <SettingChip setting="colour" :of="of" :label="label('passed colour')" /> of its colour,
    <SettingChip setting="size" :of="of" :label="label('passed size')" /> of its size,
    <template v-if="store.effect!.channels.order.length">
      <SettingChip setting="channels" :of="of" :label="label('passed channels')" /> of the channels both carry,
    </template>
    and nothing else.
  </span>
  <span v-if="ruling" class="where" data-ruling>{{ ruling }}</span>
  <span v-if="link.on === 'release' && !isHeld" class="where">
    None is held: let a front hold and free them under Source.
  </span>
  <span v-if="link.on === 'hit' && !meets" class="where"> Nothing is hit yet: add a surface under Motion. </span>
</template>

<style scoped>
.where {
  display: block;
  font-size: 12.5px;
  color: var(--dim);
}
</style>
