<script setup lang="ts">
import { stretchedCurve, type Curve, type Reads, type Shaper } from '@jinx/core/document';
import { computed, useId } from 'vue';
import { useEffectStore } from '../../stores/effect';
import CurveEditor from '../rulers/curves/CurveEditor.vue';
import BlendAmount from './BlendAmount.vue';
import ShaperHead from './ShaperHead.vue';
import { readsText, UNITS, widthOf } from '../values/shapers';

/** One shaper of a number in words, with its curve over whatever it reads. */
const props = defineProps<{ shaper: Shaper; label: string; reads: readonly Reads['kind'][]; hasAxes?: boolean }>();
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

/** All axes are said by saying none. */
function setAxis(axis: Shaper['axis']): void {
  const rest = { ...props.shaper };
  delete rest.axis;
  emit('change', axis ? { ...rest, axis } : rest, null);
}
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
      :has-axes="hasAxes"
      :width="width"
      @combine="(combine) => emit('change', { ...shaper, combine }, null)"
      @turn="setAxis"
      @widen="(to, drag) => setCurve(stretchedCurve(curve!, to / width), drag)"
      @mute="(muted) => emit('change', { ...shaper, muted }, null)"
      @remove="emit('remove')"
    >
      <BlendAmount
        v-if="shaper.combine === 'blend'"
        :shaper="shaper"
        :label="label"
        :reads="reads"
        @change="(next, drag) => emit('change', next, drag)"
      />
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
