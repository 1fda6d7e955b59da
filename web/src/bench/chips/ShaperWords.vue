<script setup lang="ts">
import { stretchedCurve, type Curve, type Shaper } from '@jinx/core/document';
import { computed, useId } from 'vue';
import { useEffectStore } from '../../stores/effect';
import PlainChip from './PlainChip.vue';
import CurveEditor from '../rulers/curves/CurveEditor.vue';
import ShaperHead from './ShaperHead.vue';
import { readsText, UNITS, widthOf } from '../values/shapers';

/** One shaper of a number in words, with its curve over whatever it reads. */
const props = defineProps<{ shaper: Shaper; label: string }>();
const emit = defineEmits<{ change: [shaper: Shaper, gesture: string | null]; remove: [] }>();
const store = useEffectStore();
const gesture = useId();
const WIDTH = 242;
const HEIGHT = 84;

const COMBINES = [
  { value: 'multiply', text: 'multiplied' },
  { value: 'add', text: 'added to' },
  { value: 'replace', text: 'replaced' },
  { value: 'blend', text: 'blended' },
] as const;
const what = computed(() => readsText(props.shaper.reads, store.effect!));
const curve = computed<Curve | null>(() =>
  props.shaper.mapping.kind === 'curve' ? props.shaper.mapping.curve : null,
);
const width = computed(() =>
  curve.value && UNITS[props.shaper.reads.kind] !== undefined ? widthOf(curve.value.keys) : 1,
);
const shown = computed(() => curve.value && stretchedCurve(curve.value, 1 / width.value));

const setCurve = (next: Curve, ofGesture: string | null) =>
  emit(
    'change',
    { ...props.shaper, mapping: { kind: 'curve', curve: next } },
    ofGesture && `${gesture} ${ofGesture}`,
  );
</script>

<template>
  <span class="shaper">
    <ShaperHead
      class="words"
      :shaper="shaper"
      :label="label"
      :combines="COMBINES"
      :width="width"
      @combine="(combine) => emit('change', { ...shaper, combine }, null)"
      @widen="(to, drag) => setCurve(stretchedCurve(curve!, to / width), drag)"
      @mute="(muted) => emit('change', { ...shaper, muted }, null)"
      @remove="emit('remove')"
    >
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
    </ShaperHead>
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
