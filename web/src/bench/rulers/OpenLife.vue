<script setup lang="ts">
import type { Collection, Stop } from '@jinx/core/document';
import { computed, ref } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { keptComputed } from '../values/keptComputed';
import { useLayer } from '../values/life';
import { ageGradient, setAgeGradient } from '../values/shapers';
import AgePointer from './AgePointer.vue';
import Filmstrip from './Filmstrip.vue';
import GradientEditor from './curves/GradientEditor.vue';
import LineEditor from './curves/LineEditor.vue';
import { PAD } from './layout';
import { chosenLine, linesOf } from './curves/lines';

/** The chosen layer's life at full height: filmstrip, curves and gradient on one ruler. */
const props = defineProps<{ width: number; height: number }>();
const store = useEffectStore();
const { layer, lifetimes } = useLayer(() => store.chosenId);
const life = computed(() => lifetimes.value[1]);
const inner = computed(() => props.width - 2 * PAD);
const gradient = computed(() => ageGradient(layer.value.settings['life.colour']));
const filmHeight = computed(() => (props.height > 140 ? 30 : 0));
const curveHeight = computed(() => Math.max(50, props.height - filmHeight.value - 26 - (gradient.value ? 34 : 4)));
const lines = keptComputed(() => linesOf(store.effect!, store.chosenId));
const line = computed(() => chosenLine(lines.value, store.lifeLine)!);
const others = computed(() => lines.value.filter((other) => other !== line.value));
const pointed = ref<number | null>(null);
/** On the filmstrip, pointing lights what has that age on the stage; over the curves the effect is seen as it is. */
const isLit = ref(false);
function point(event: PointerEvent): void {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
  const age = (event.clientX - box.left - PAD) / Math.max(1, inner.value);
  pointed.value = age < 0 || age > 1 ? null : age;
  isLit.value = event.clientY - box.top < filmHeight.value && event.buttons === 0;
}
function leave(): void {
  pointed.value = null;
  isLit.value = false;
}
/** The arrows walk the ages of the filmstrip. */
function walk(event: KeyboardEvent): void {
  const way = { ArrowLeft: -0.02, ArrowRight: 0.02 }[event.key];
  if (event.key === 'Escape') leave();
  else if (way === undefined) return;
  else {
    pointed.value = Math.min(1, Math.max(0, (pointed.value ?? 0.5) + way));
    isLit.value = true;
  }
  event.preventDefault();
  event.stopPropagation();
}
const setStops = (stops: Collection<Stop>, gesture: string | null) =>
  store.changeLayers(
    'shape colour',
    ({ settings }) => setAgeGradient(settings['life.colour'], stops, store.newId()),
    gesture,
  );
</script>

<template>
  <div class="open" :style="{ paddingLeft: `${PAD}px` }" @pointermove="point" @pointerleave="leave">
    <Filmstrip
      v-if="filmHeight"
      :layer-id="store.chosenId"
      :width="width"
      :height="filmHeight"
      :style="{ marginLeft: `${-PAD}px` }"
      tabindex="0"
      role="slider"
      aria-label="one particle at successive ages"
      :aria-valuetext="pointed === null ? 'no age is lit' : `${Math.round(pointed * 100)}% is lit on the stage`"
      :aria-valuenow="Math.round((pointed ?? 0) * 100)"
      title="Point at an age to see on the stage what has it now; the arrows walk it"
      @keydown="walk"
      @blur="leave"
    />
    <LineEditor
      :key="`${store.chosenId} ${line.key}`"
      :line="line"
      :others="others"
      :width="inner"
      :height="curveHeight"
      :life="life"
    />
    <GradientEditor
      v-if="gradient"
      :key="store.chosenId"
      :stops="gradient.stops"
      :width="inner"
      :life="life"
      @change="setStops"
      @done="store.endGesture()"
    />
    <AgePointer
      v-if="pointed !== null"
      :age="pointed"
      :is-lit="isLit"
      :lifetimes="lifetimes"
      :left="PAD"
      :width="inner"
    />
  </div>
</template>

<style scoped>
.open {
  position: relative;
}
</style>
