<script setup lang="ts">
import { curveThrough, type Curve, type Reads, type Shaper } from '@jinx/core/document';
import { Button } from 'ant-design-vue';
import { computed, useId } from 'vue';
import { useEffectStore } from '../../stores/effect';
import MenuButton from '../chips/MenuButton.vue';
import PlainChip from '../chips/PlainChip.vue';
import CurveEditor from '../rulers/curves/CurveEditor.vue';
import { readsOffered, readsText, UNITS } from '../values/shapers';

/** How far a blend goes, in words: always so far, or so far times a curve over whatever it reads. */
const props = defineProps<{ shaper: Shaper; label: string; reads: readonly Reads['kind'][] }>();
const emit = defineEmits<{ change: [shaper: Shaper, gesture: string | null] }>();
const store = useEffectStore();
const gesture = useId();
const what = computed(() => readsText(props.shaper.reads, store.effect!));
const by = computed(() => props.shaper.amountBy);
/** What runs from 0 to 1: of the others it would not be said up to where. */
const offered = computed(() =>
  readsOffered(props.reads, store.effect!).filter(({ reads }) => UNITS[reads.kind] === undefined),
);
function changeBy(value: string): void {
  const { reads } = offered.value.find((offer) => offer.value === value)!;
  const curve = curveThrough([
    [0, 0],
    [1, 1],
  ]);
  emit('change', { ...props.shaper, amountBy: { reads, curve } }, null);
}
function level(): void {
  const rest = { ...props.shaper };
  delete rest.amountBy;
  emit('change', rest, null);
}
const setCurve = (curve: Curve, ofGesture: string | null) =>
  emit('change', { ...props.shaper, amountBy: { ...by.value!, curve } }, ofGesture && `${gesture} ${ofGesture}`);
</script>

<template>
  by
  <PlainChip
    :value="shaper.amount"
    :label="`${label}, ${what}, how far`"
    :least="0"
    :most="1"
    @change="(amount, drag) => emit('change', { ...shaper, amount }, drag)"
  />
  <template v-if="by">
    times a curve by {{ readsText(by.reads, store.effect!) }}
    <Button type="link" :aria-label="`Blend ${label} as far always`" @click="level">always as far</Button>
    <CurveEditor
      :curve="by.curve"
      :width="242"
      :height="56"
      :life="1"
      :label="`${label}, how far it is blended`"
      @change="setCurve"
      @done="store.endGesture()"
    />
  </template>
  <MenuButton v-else label="changing…" :choices="offered" previews @choose="changeBy" />
</template>
