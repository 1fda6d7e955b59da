<script setup lang="ts">
import {
  type Collection,
  type HolderAddress,
  isRibbon,
  type Step,
  STEP_NAMES,
  stepsOf,
  stepTable,
  stepToChange,
  type Stop,
} from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../../stores/effect';
import ColourSettingChip from '../../colour/ColourSettingChip.vue';
import ColourShapers from '../../colour/ColourShapers.vue';
import PictureChip from '../../chips/PictureChip.vue';
import GradientEditor from '../../rulers/curves/GradientEditor.vue';
import SettingChip from '../../chips/SettingChip.vue';
import { STEP_CHOICES, stepSentences } from './lookWords';

/** One step of a look as sentences. */
const props = defineProps<{ id: string; step: Step }>();
const store = useEffectStore();
const of = computed((): HolderAddress => ({ kind: 'step', layer: store.chosenId, id: props.id }));
/** Whether no step before it draws: then it begins. */
const isFirst = computed(() => {
  const drawing = stepsOf(store.effect!, store.chosen!).find(
    ({ item }) => !item.muted && (item.kind === 'drawn' || item.kind === 'picture'),
  );
  return drawing === undefined || drawing.id === props.id;
});
/** A white shape has nothing to be tinted over time. */
const mayTint = computed(() => {
  const { step } = props;
  if (step.kind !== 'drawn') return 'colour' in table.value;
  const { base, shapers } = step.settings.colour;
  const isWhite = base.kind === 'fixed' && 'hex' in base.value && base.value.hex === '#ffffff';
  return !isWhite || shapers.order.length > 0;
});
const sentences = computed(() => stepSentences(props.step, isFirst.value));
const table = computed(() => stepTable(props.step.kind));
const labelOf = (setting: string) => `${STEP_NAMES[props.step.kind].toLowerCase()}, ${table.value[setting]!.name}`;
const GRADIENT_WIDTH = 290;
/** Along a ribbon, a gradient runs from its tail to its head. */
const ends = computed(() =>
  props.step.kind === 'gradient' && props.step.settings.along.base.value === 'along' && isRibbon(store.chosen!.drawn)
    ? (['tail', 'head'] as const)
    : null,
);

const change = (label: string, recipe: (step: Step) => void, gesture: string | null = null) =>
  store.change(
    label,
    (draft) => {
      const step = stepToChange(draft, store.chosenId, props.id);
      if (step) recipe(step);
    },
    gesture,
  );
const setStops = (stops: Collection<Stop>, gesture: string | null) =>
  change('change a gradient', (step) => step.kind === 'gradient' && (step.stops = stops), gesture);
</script>

<template>
  <span v-for="(sentence, which) in sentences" :key="which" :class="{ beside: which > 0 }">
    <template v-for="(piece, n) in sentence" :key="n"
      ><template v-if="typeof piece === 'string'">{{ piece }}</template
      ><PictureChip v-else-if="'picture' in piece" :step-id="id" :step="step" /><ColourSettingChip
        v-else-if="'colour' in piece"
        :setting="piece.colour"
        :of="of"
        :label="labelOf(piece.colour)" /><SettingChip
        v-else-if="'setting' in piece"
        :setting="piece.setting"
        :of="of"
        :words="STEP_CHOICES[piece.setting]"
        :label="labelOf(piece.setting)" /></template
    >.
  </span>
  <span v-if="mayTint" class="beside"><ColourShapers setting="colour" :of="of" :label="labelOf('colour')" /></span>
  <GradientEditor
    v-if="step.kind === 'gradient'"
    :stops="step.stops"
    :width="GRADIENT_WIDTH"
    :life="1"
    label="Colours of the gradient"
    :ends="ends"
    @change="setStops"
    @done="store.endGesture()"
  />
</template>

<style scoped>
.beside {
  display: block;
  font-size: 12.5px;
  color: var(--dim);
}
</style>
