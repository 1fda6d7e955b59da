<script setup lang="ts">
import type { Combine, Curve, Shaper } from '@jinx/core/document';
import { computed, useId } from 'vue';
import { useEffectStore } from '../stores/effect';
import ChoiceChip from './ChoiceChip.vue';
import PlainChip from './PlainChip.vue';
import CurveEditor from './rulers/CurveEditor.vue';
import { readsText, stretchedCurve, UNITS, widthOf } from './shapers';

/** One shaper of a number in words, with its curve over whatever it reads. */
const props = defineProps<{ shaper: Shaper; label: string }>();
const emit = defineEmits<{ change: [shaper: Shaper, gesture: string | null]; remove: [] }>();
const store = useEffectStore();
const gesture = useId();
const WIDTH = 242;
const HEIGHT = 84;

const COMBINES = [
  { value: 'multiply', text: 'times' },
  { value: 'add', text: 'plus' },
  { value: 'replace', text: 'instead' },
  { value: 'blend', text: 'toward' },
] as const;
const what = computed(() => readsText(props.shaper.reads, store.effect!));
const unit = computed(() => UNITS[props.shaper.reads.kind]);
const curve = computed<Curve | null>(() =>
  props.shaper.mapping.kind === 'curve' ? props.shaper.mapping.curve : null,
);
const width = computed(() => (curve.value && unit.value !== undefined ? widthOf(curve.value) : 1));
const shown = computed(() => curve.value && stretchedCurve(curve.value, 1 / width.value));

const setCurve = (next: Curve, ofGesture: string | null) =>
  emit(
    'change',
    { ...props.shaper, mapping: { kind: 'curve', curve: next } },
    ofGesture && `${gesture} ${ofGesture}`,
  );
const setCombine = (combine: string) => emit('change', { ...props.shaper, combine: combine as Combine }, null);
</script>

<template>
  <span class="shaper">
    <span class="words">
      <ChoiceChip
        :value="shaper.combine"
        :choices="COMBINES"
        :label="`${label}, ${what}, how`"
        @choose="setCombine"
      />
      <template v-if="shaper.combine === 'blend'">
        by
        <PlainChip
          :value="shaper.amount"
          :label="`${label}, ${what}, how far`"
          :least="0"
          :most="1"
          @change="(amount, drag) => emit('change', { ...shaper, amount }, drag)"
        />
      </template>
      by {{ what
      }}<template v-if="unit !== undefined"
        >, up to
        <PlainChip
          :value="width"
          :label="`${label}, ${what}, up to`"
          :unit="unit"
          :least="0.01"
          :most="1000"
          @change="(to, drag) => setCurve(stretchedCurve(curve!, to / width), drag)"
        />
      </template>
      <button
        type="button"
        class="plain"
        :aria-label="`Take off what ${what} does to ${label}`"
        @click="emit('remove')"
      >
        ×
      </button>
    </span>
    <CurveEditor
      v-if="shown"
      :curve="shown"
      :width="WIDTH"
      :height="HEIGHT"
      :life="1"
      :label="`${label}, by ${what}`"
      @change="(next, drag) => setCurve(stretchedCurve(next, width), drag)"
      @done="store.endGesture()"
    />
  </span>
</template>

<style scoped>
.shaper {
  display: block;
  border-top: 1px solid #434347;
  padding-top: 4px;
}
.words {
  display: block;
}
</style>
