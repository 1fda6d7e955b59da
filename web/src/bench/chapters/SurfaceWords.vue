<script setup lang="ts">
import {
  listed,
  SURFACE_SETTINGS,
  type Declaration,
  type HolderAddress,
  type Place,
  type Surface,
} from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import ActChip from '../chips/ActChip.vue';
import ChoiceChip from '../chips/ChoiceChip.vue';
import MenuButton from '../chips/MenuButton.vue';
import PlaceWords from '../chips/PlaceWords.vue';
import SettingChip from '../chips/SettingChip.vue';
import { meetingSentence, SURFACE_NAMES, surfaceSentence } from './surfaceWords';

/** One surface as sentences: what it is, what it does to what meets it, and to whom. */
const props = defineProps<{ id: string; surface: Surface }>();
const store = useEffectStore();
const of = computed((): HolderAddress => ({ kind: 'surface', id: props.id }));

const sentences = computed(() => [surfaceSentence(props.surface), meetingSentence(props.surface)]);
const table = computed(() => SURFACE_SETTINGS[props.surface.kind] as Record<string, Declaration>);
const name = computed(() => SURFACE_NAMES[props.surface.kind].toLowerCase());
const labelOf = (setting: string) => `${name.value}, ${table.value[setting]?.name ?? setting}`;

const change = (label: string, recipe: (surface: Surface) => void, gesture: string | null = null) =>
  store.change(
    label,
    (draft) => {
      const surface = draft.surfaces.byId[props.id];
      if (surface) recipe(surface);
    },
    gesture,
  );
const setPlace = (place: Place, gesture: string | null) =>
  change('place a surface', (surface) => 'place' in surface && (surface.place = place), gesture);
const setThing = (thing: string) =>
  change('choose what is met', (surface) => surface.kind === 'thing' && (surface.thing = thing));

const setMetLayer = (layer: string) =>
  change('choose whose mesh is met', (surface) => surface.kind === 'layer' && (surface.layer = layer));

const things = computed(() => {
  const known = listed(store.effect!.stage.things).map(({ id, item }) => ({ value: id, text: item.name }));
  const { surface } = props;
  return surface.kind !== 'thing' || known.some(({ value }) => value === surface.thing)
    ? known
    : [...known, { value: surface.thing, text: 'something (missing)' }];
});
const layers = computed(() => listed(store.effect!.layers).map(({ id, item }) => ({ value: id, text: item.name })));
const meeting = computed(() => layers.value.filter(({ value }) => props.surface.layers.includes(value)));
const others = computed(() => [
  { value: '', text: 'every layer' },
  ...layers.value.filter(({ value }) => !props.surface.layers.includes(value)),
]);
const setLayers = (layers: string[]) => change('choose who meets a surface', (surface) => (surface.layers = layers));
/** Leaving out the last layer of all would let it be met by every layer again: then it is only muted. */
const leaveOut = (id: string) =>
  props.surface.layers.length > 1
    ? setLayers(props.surface.layers.filter((layer) => layer !== id))
    : change('mute a surface', (surface) => (surface.muted = true));
</script>

<template>
  <span v-for="(sentence, which) in sentences" :key="which" :class="{ where: which === 1 }">
    <template v-for="(piece, n) in sentence" :key="n"
      ><template v-if="typeof piece === 'string'">{{ piece }}</template
      ><PlaceWords
        v-else-if="'place' in piece && 'place' in surface"
        :place="surface.place"
        :label="`${name}, place`"
        turns
        @change="setPlace" /><ChoiceChip
        v-else-if="'setting' in piece && piece.setting === 'thing' && surface.kind === 'thing'"
        :value="surface.thing"
        :choices="things"
        label="what they meet"
        @choose="setThing" /><ChoiceChip
        v-else-if="'setting' in piece && piece.setting === 'layer' && surface.kind === 'layer'"
        :value="surface.layer"
        :choices="layers"
        label="whose mesh they meet"
        @choose="setMetLayer" /><template
        v-else-if="'setting' in piece && piece.setting === 'mesh' && surface.kind === 'mesh'"
        >{{ surface.name }}</template
      ><SettingChip
        v-else-if="'setting' in piece"
        :setting="piece.setting"
        :of="of"
        :label="labelOf(piece.setting)" /></template
    >.
  </span>
  <span v-if="layers.length > 1" class="where">
    <template v-if="surface.layers.length === 0">
      Met by
      <ActChip title="Only by this layer" @click="setLayers([store.chosenId])"> every layer × </ActChip>
    </template>
    <template v-else>
      Met by
      <ActChip v-for="{ value, text } in meeting" :key="value" :title="`Leave ${text} out`" @click="leaveOut(value)">
        {{ text }} ×
      </ActChip>
      <MenuButton
        label="and…"
        :choices="others"
        @choose="setLayers($event === '' ? [] : [...surface.layers, $event])"
      />
    </template>
  </span>
</template>

<style scoped>
.where {
  display: block;
  font-size: 12.5px;
  color: var(--dim);
}
</style>
