<script setup lang="ts">
import type { Collection, Curve, NumberSetting, Stop } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { useLayer } from '../life';
import {
  ageCurve,
  ageGradient,
  LIFE_SETTINGS,
  READY_SHAPES,
  readyCurveOf,
  setAgeCurve,
  setAgeGradient,
  type LifeSetting,
} from '../shapers';
import CurveEditor from './CurveEditor.vue';
import Filmstrip from './Filmstrip.vue';
import GradientEditor from './GradientEditor.vue';
import { PAD } from './layout';

/** The chosen layer's life at full height: filmstrip, curves and gradient on one ruler. */
const props = defineProps<{ width: number; height: number; active: LifeSetting }>();
const store = useEffectStore();
const { layer, lifetimes } = useLayer(() => store.chosenId);
const life = computed(() => lifetimes.value[1]);
const inner = computed(() => props.width - 2 * PAD);
const gradient = computed(() => ageGradient(layer.value.settings['life.colour']));
const filmHeight = computed(() => (props.height > 140 ? 30 : 0));
const curveHeight = computed(() => Math.max(50, props.height - filmHeight.value - 26 - (gradient.value ? 34 : 4)));
const setting = computed<NumberSetting>(() => layer.value.settings[props.active]);
const found = computed(() => ageCurve(setting.value));
/** The other curves, drawn faintly behind. */
const others = computed(() =>
  LIFE_SETTINGS.filter((name) => name !== props.active).flatMap((name) => {
    const other = ageCurve(layer.value.settings[name]);
    return other ? [{ name, curve: other.curve }] : [];
  }),
);
const word = computed(() => props.active.slice('life.'.length));

function setCurve(curve: Curve, gesture: string | null): void {
  store.changeLayer(
    `shape ${word.value}`,
    (target) => setAgeCurve(target.settings[props.active], curve, store.newId()),
    gesture && `${props.active} ${gesture}`,
  );
}
function setStops(stops: Collection<Stop>, gesture: string | null): void {
  store.changeLayer('shape colour', (target) => setAgeGradient(target, stops, store.newId()), gesture);
}
const useShape = (name: string) => {
  const ready = READY_SHAPES.find((shape) => shape.name === name);
  if (ready) setCurve(readyCurveOf(ready.points), null);
};
</script>

<template>
  <div class="open" :style="{ paddingLeft: `${PAD}px` }">
    <Filmstrip
      v-if="filmHeight"
      :layer-id="store.chosenId"
      :width="width"
      :height="filmHeight"
      :style="{ marginLeft: `${-PAD}px` }"
    />
    <div class="shapes">
      <span class="quiet">{{ found ? `${word} over age:` : `${word} is not shaped: begin with` }}</span>
      <button
        v-for="shape in READY_SHAPES"
        :key="shape.name"
        type="button"
        class="plain"
        @click="useShape(shape.name)"
      >
        {{ shape.name }}
      </button>
    </div>
    <div class="curves">
      <div v-for="other in others" :key="other.name" class="behind" aria-hidden="true">
        <CurveEditor
          :curve="other.curve"
          :width="inner"
          :height="curveHeight"
          :life="life"
          :label="other.name"
          :is-dashed="other.name === 'life.opacity'"
        />
      </div>
      <CurveEditor
        v-if="found"
        :key="`${store.chosenId} ${active}`"
        :curve="found.curve"
        :width="inner"
        :height="curveHeight"
        :life="life"
        :label="word"
        :is-dashed="active === 'life.opacity'"
        @change="setCurve"
        @done="store.endGesture()"
      />
      <div v-else :style="{ height: `${curveHeight}px` }"></div>
    </div>
    <GradientEditor
      v-if="gradient"
      :key="store.chosenId"
      :stops="gradient.stops"
      :width="inner"
      :life="life"
      @change="setStops"
      @done="store.endGesture()"
    />
  </div>
</template>

<style scoped>
.shapes {
  display: flex;
  gap: 2px 6px;
  height: 24px;
  align-items: center;
  overflow: hidden;
  white-space: nowrap;
  font-size: 12.5px;
}
.shapes .plain {
  padding: 0 3px;
}
.curves {
  position: relative;
  margin-bottom: 4px;
}
.behind {
  position: absolute;
  inset: 0;
  opacity: 0.28;
  pointer-events: none;
}
.behind :deep(.key) {
  display: none;
}
</style>
